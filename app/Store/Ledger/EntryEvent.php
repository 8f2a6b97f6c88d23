<?php

declare(strict_types=1);

namespace App\Store\Ledger;

use VividLedger\Explain\SlipTold;
use VividLedger\Record\Event;
use VividLedger\Record\EventKind;

/** The event that an entry recorded, read back from what it keeps. */
final class EntryEvent
{
    /** Kinds of entry whose event has a text or a sender that rules ask for. */
    public const TOLD = ['comment', 'file', 'reply', 'task_done', 'slip', 'hook_brought'];

    /**
     * @param  array<array-key, mixed>  $data
     * @param  ?int  $rule  the one it names
     * @return ?Event null when it recorded something else
     */
    public static function of(int $entry, string $kind, array $data, ?int $rule): ?Event
    {
        if ($kind === 'slip') {
            $answer = SlipTold::answer($data);

            return $answer === null ? null : new Event(EventKind::SlipAnswered, "entry:{$entry}", $answer);
        }
        $event = EventKind::tryFrom($kind);

        return $event === null ? null : new Event(
            $event,
            "entry:{$entry}",
            self::text($data['text'] ?? $data['name'] ?? $data['title'] ?? ''),
            $event === EventKind::ByHand ? $rule : null,
            self::text($data['from'] ?? ''),
        );
    }

    private static function text(mixed $text): string
    {
        return is_scalar($text) ? (string) $text : '';
    }
}
