<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Record\EventKind;
use VividLedger\Shape\Slot;

/** Somebody answered a message about the record. */
final readonly class ReplyArrived extends EventHappened
{
    protected static function event(): EventKind
    {
        return EventKind::Reply;
    }

    protected static function sender(): Slot
    {
        return new WordsAbout('Name or address, or a part of it', '+ from somebody');
    }

    protected static function otherwise(): array
    {
        return [
            '{subject} (is answered|receives a reply|gets an answer|has a reply|is replied to|gets a new reply|receives an answer)',
            '(someone|somebody|the contact|the customer|anyone) (replies|answers|responds)[ (to|on) {subject}]',
            'a [new ](reply|answer|response) (arrives|comes|comes in|is received|is there)[ (on|to|for) {subject}]',
        ];
    }

    protected static function played(): array
    {
        return [OpeningKind::Reply, 'A reply'];
    }
}
