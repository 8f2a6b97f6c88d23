<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

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
            SignOffStatus::Agreed => 'It has been agreed already.',
            SignOffStatus::Declined => 'It has been declined already.',
            SignOffStatus::Withdrawn => 'It was withdrawn.',
            SignOffStatus::TimedOut => 'Its time has run out.',
            default => 'It has ended.',
        });
    }

    public static function notAsked(): self
    {
        return new self('not_asked', 'Nobody asks you about this now.');
    }

    public static function withoutReason(): self
    {
        return new self('no_comment', 'Say why not: whoever asked wants to know.');
    }
}
