<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Record\EventKind;

/** Somebody wrote a comment on the record. */
final readonly class CommentArrived extends EventHappened
{
    protected static function event(): EventKind
    {
        return EventKind::Comment;
    }

    protected static function otherwise(): array
    {
        return [
            '{subject} (is commented on|is commented|receives a comment|has a comment|gets a new comment|gets commented|has a new comment)',
            '(someone|somebody|anyone) (comments|comments on|writes a comment on) {subject}',
            'a [new ]comment (arrives|is written|is added|comes in|is made|appears)[ (on|to) {subject}]',
        ];
    }

    protected static function played(): array
    {
        return [OpeningKind::Comment, 'A comment'];
    }
}
