<?php

declare(strict_types=1);

namespace App\Store\Outbound;

use App\Models\Outbound\StoredMessage;
use App\Store\SignOffs\SignOffLink;
use App\Store\Slips\SlipLink;

/**
 * What lets whoever gets a letter act on it: the link to their slip or to the case they decide. It never stands in what is kept or shown;
 * a mark is in its place, filled as the letter leaves, and what comes back quoted is masked again.
 */
final class LetterLinks
{
    /** Addresses of ours that let somebody act, each with what stands there instead. */
    private const ACTING = [
        '#/decide/\d+-\d+-\d+-[a-f0-9]{32}#i' => SignOffLink::MARK,
        '#/slip/[A-Za-z0-9_-]{43}(?![A-Za-z0-9_-])#' => SlipLink::MARK,
        '#/welcome/[A-Za-z0-9_-]{20,}#' => '/welcome/their-link',
        '#/unsubscribe/[A-Za-z0-9_.-]{20,}#' => '/unsubscribe/their-link',
        '#/feed/[a-f0-9]{48}#i' => '/feed/their-link',
        '#\+(?:m\d+-[a-f0-9]{20}|\d+-\d+-\d+-[a-f0-9]{32})@#i' => '@',
    ];

    /** What leaves the house: each link in the place of its mark. */
    public static function filled(StoredMessage $message, string $text): string
    {
        $token = self::decisionOf($message);

        return SlipLink::filled($message, $token === null ? $text : str_replace(SignOffLink::MARK, SignOffLink::address($token), $text));
    }

    /** Inside the application an address begins at its root; a mail program and a telephone need all of it. */
    public static function root(): string
    {
        return rtrim((string) config('app.url'), '/');
    }

    /** A plain text with all of each address of ours that stands in brackets. */
    public static function whole(string $text): string
    {
        return (string) preg_replace('#\((/[a-z][^\s()]*)\)#', '('.self::root().'$1)', $text);
    }

    /** Where an answer to the letter goes, if it decides something; null for an answer like any other. */
    public static function deciding(StoredMessage $message): ?string
    {
        $token = self::decisionOf($message);

        return $token === null ? null : SignOffLink::mailAddress($token);
    }

    /** The text without anything that lets somebody act. */
    public static function masked(string $text): string
    {
        return (string) preg_replace(array_keys(self::ACTING), array_values(self::ACTING), $text);
    }

    private static function decisionOf(StoredMessage $message): ?string
    {
        return $message->seat_id === null || $message->seat_round === null ? null
            : SignOffLink::token($message->seat_id, $message->seat_round, $message->created_at);
    }
}
