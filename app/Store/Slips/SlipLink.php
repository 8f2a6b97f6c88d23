<?php

declare(strict_types=1);

namespace App\Store\Slips;

use App\Models\Outbound\StoredMessage;
use App\Models\People\Person;
use App\Models\Slips\SlipTurnRow;
use App\Store\DomainError;
use VividLedger\Words\Words;

/**
 * The link to a slip, which only its reader has: made of the key of the installation and the turn, so that nothing that is kept gives
 * it away. Letters are kept with a mark in its place, and get it when they leave.
 */
final class SlipLink
{
    /** What stands in a letter that is kept. */
    public const MARK = '/slip/your-link';

    public static function token(SlipTurnRow $turn): string
    {
        return self::made($turn->id, $turn->link);
    }

    public static function hash(string $token): string
    {
        return hash('sha256', $token);
    }

    /** @throws DomainError when the link leads nowhere */
    public static function turn(string $token): SlipTurnRow
    {
        $isOurs = preg_match('/^[A-Za-z0-9_-]{43}$/D', $token) === 1;
        $turn = $isOurs ? SlipTurnRow::query()->with('slip.turns')->firstWhere('token_hash', self::hash($token)) : null;
        $hasLeft = $turn?->person_id !== null && ! Person::query()->whereKey($turn->person_id)->where('active', true)->exists();

        return $turn !== null && ! $hasLeft ? $turn
            : throw DomainError::missing(Words::say('This link leads nowhere. Open the latest letter about it, or ask for a new one.'));
    }

    /** What leaves the house: the link in the place of its mark. */
    public static function filled(StoredMessage $message, string $text): string
    {
        return $message->slip_turn_id === null || $message->slip_link === null ? $text
            : str_replace(self::MARK, '/slip/'.self::made($message->slip_turn_id, $message->slip_link), $text);
    }

    private static function made(int $turn, int $link): string
    {
        $made = hash_hmac('sha256', "slip {$turn} {$link}", (string) config('app.key'), true);

        return rtrim(strtr(base64_encode($made), '+/', '-_'), '=');
    }
}
