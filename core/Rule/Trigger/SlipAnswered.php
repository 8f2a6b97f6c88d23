<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Record\EventKind;

/** Somebody answered a reply slip about the record; what is mentioned is looked for in all answers. */
final readonly class SlipAnswered extends EventHappened
{
    protected static function event(): EventKind
    {
        return EventKind::SlipAnswered;
    }

    protected static function otherwise(): array
    {
        return [
            '{subject} (has a slip answered|gets a slip back|gets a reply slip back|has its slip answered)',
            'a [reply ]slip (is answered|comes back|is filled in|is returned)[ (on|to|for|about) {subject}]',
            '(someone|somebody|anyone) (answers|fills in) (a|the) [reply ]slip[ (on|about|for) {subject}]',
        ];
    }

    protected static function played(): array
    {
        return [OpeningKind::Slip, 'Done'];
    }
}
