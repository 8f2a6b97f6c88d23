<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

use VividLedger\Words\Words;

/** An answer that cannot be taken. Nothing has changed. */
final class NotDecided extends \RuntimeException
{
    private function __construct(public readonly string $reason, string $message)
    {
        parent::__construct($message);
    }

    public static function ended(SignOffStatus $status): self
    {
        return new self('ended', match ($status) {
            SignOffStatus::Agreed => Words::say('It has been agreed already.'),
            SignOffStatus::Declined => Words::say('It has been declined already.'),
            SignOffStatus::Withdrawn => Words::say('It was withdrawn.'),
            SignOffStatus::TimedOut => Words::say('Its time has run out.'),
            default => Words::say('It has ended.'),
        });
    }

    public static function notAsked(): self
    {
        return new self('not_asked', Words::say('Nobody asks you about this now.'));
    }

    public static function withoutReason(): self
    {
        return new self('no_comment', Words::say('Say why not: whoever asked wants to know.'));
    }

    public static function cannotBeGiven(): self
    {
        return new self(
            'cannot_be_given',
            Words::say('It cannot be given to them: they asked for it, are not at work, or have a part in it already.'),
        );
    }

    public static function withoutQuestion(): self
    {
        return new self('no_comment', Words::say('Write the question.'));
    }

    public static function nobodyToAsk(): self
    {
        return new self('nobody_to_ask', Words::say('No person asked for it, so there is nobody to answer a question.'));
    }

    public static function noQuestion(): self
    {
        return new self('no_question', Words::say('There is no open question of theirs.'));
    }
}
