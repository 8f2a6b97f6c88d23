<?php

declare(strict_types=1);

namespace App\Store\SignOffs;

use App\Models\SignOffs\SignOffSeat;
use App\Store\DomainError;
use App\Store\RefusedFor;
use VividLedger\Words\Words;

/**
 * The way from a letter to the case it is about: who may decide, in which round, and how long. It is signed with the secret of
 * this installation (HMAC, RFC 2104), so that nobody can make one; it is used up with the answer, and by being asked anew.
 */
final class SignOffLink
{
    /** What stands in a letter that is kept. */
    public const MARK = '/decide/your-link';

    private const DAYS = 30;

    private const PATTERN = '/^(\d{1,18})-(\d{1,5})-(\d{1,12})-([a-f0-9]{32})$/';

    /** @return string a text that can stand in an address of the web and of mail */
    public static function token(int $seat, int $round, \DateTimeImmutable $now): string
    {
        $stem = "{$seat}-{$round}-".$now->modify('+'.self::DAYS.' days')->getTimestamp();

        return "{$stem}-".self::sign($stem);
    }

    /**
     * The seat that a token leads to.
     *
     * @throws DomainError when it was made by somebody else, has run out, or leads nowhere any more
     */
    public static function seat(string $token, \DateTimeImmutable $now): SignOffSeat
    {
        $seat = self::whose($token);
        preg_match(self::PATTERN, $token, $part);
        if ($seat === null) {
            throw DomainError::missing(Words::say('This link leads nowhere. Open the letter again, or sign in.'));
        }
        if ($now->getTimestamp() > (int) ($part[3] ?? 0)) {
            throw new DomainError('link_expired', Words::say('This link has run out. Sign in to decide.'), RefusedFor::Conflict);
        }
        if ($seat->round !== (int) ($part[2] ?? 0)) {
            throw new DomainError(
                'link_used',
                Words::say('You have been asked again since. Use the link of the latest letter.'),
                RefusedFor::Conflict,
            );
        }

        return $seat;
    }

    /** Whose token it is, whether it may be used still or not; null when it was made by somebody else, or they have left. */
    public static function whose(string $token): ?SignOffSeat
    {
        $isOurs = preg_match(self::PATTERN, $token, $part) === 1 && hash_equals(self::sign("{$part[1]}-{$part[2]}-{$part[3]}"), $part[4]);
        $seat = $isOurs ? SignOffSeat::query()->with(['signOff', 'person'])->find((int) $part[1]) : null;

        return $seat?->person->active === true ? $seat : null;
    }

    public static function address(string $token): string
    {
        return "/decide/{$token}";
    }

    /** Where an answer by mail goes: the address we send from, with the token behind a plus (RFC 5233). */
    public static function mailAddress(string $token): string
    {
        [$name, $host] = explode('@', (string) config('ledger.mail.from'), 2) + [1 => 'localhost'];

        return "{$name}+{$token}@{$host}";
    }

    /** The token in an address that a mail came to; null when there is none. */
    public static function inAddress(string $address): ?string
    {
        return preg_match('/\+(\d+-\d+-\d+-[a-f0-9]{32})@/i', $address, $found) === 1 ? strtolower($found[1]) : null;
    }

    private static function sign(string $stem): string
    {
        return substr(hash_hmac('sha256', "sign-off {$stem}", (string) config('app.key')), 0, 32);
    }
}
