<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Record\EventKind;

/** Somebody put a file on the record. */
final readonly class FileArrived extends EventHappened
{
    protected static function event(): EventKind
    {
        return EventKind::File;
    }

    protected static function otherwise(): array
    {
        return [
            '{subject} (receives a file|has a file|gets a new file|gets an attachment|has a file attached|gets a file attached)',
            '(someone|somebody|anyone) (adds|attaches|uploads) a file[ to {subject}]',
            'a [new ](file|attachment|document) (arrives|is added|is attached|is uploaded|comes in)[ (on|to) {subject}]',
        ];
    }

    protected static function played(): array
    {
        return [OpeningKind::File, 'plan.pdf'];
    }
}
