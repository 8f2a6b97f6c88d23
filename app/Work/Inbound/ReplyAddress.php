<?php

declare(strict_types=1);

namespace App\Work\Inbound;

use App\Models\Outbound\StoredMessage;

/** Where answers to a letter go: the address we send from, with the letter behind a plus, signed (RFC 5233). */
final class ReplyAddress
{
    public static function of(StoredMessage $message): string
    {
        [$name, $host] = explode('@', (string) config('ledger.mail.from'), 2) + [1 => 'localhost'];

        return "{$name}+m{$message->id}-".self::sign($message->id)."@{$host}";
    }

    /** @param  list<string>  $to  addresses that a mail came to */
    public static function messageIn(array $to): ?StoredMessage
    {
        foreach ($to as $address) {
            if (preg_match('/\+m(\d{1,18})-([a-f0-9]{20})@/', $address, $found) === 1
                && hash_equals(self::sign((int) $found[1]), $found[2])) {
                return StoredMessage::query()->find((int) $found[1]);
            }
        }

        return null;
    }

    public static function unsubscribe(string $address): string
    {
        $at = rtrim(strtr(base64_encode(mb_strtolower($address)), '+/', '-_'), '=');

        return "/unsubscribe/{$at}.".self::signed(mb_strtolower($address));
    }

    /** The address that wants no more chases; null when the link is not ours. */
    public static function unsubscribing(string $token): ?string
    {
        [$at, $sign] = explode('.', $token, 2) + [1 => ''];
        $address = (string) base64_decode(strtr($at, '-_', '+/'), true);

        return $address !== '' && hash_equals(self::signed($address), $sign) ? $address : null;
    }

    private static function sign(int $message): string
    {
        return substr(hash_hmac('sha256', "answer {$message}", (string) config('app.key')), 0, 20);
    }

    private static function signed(string $address): string
    {
        return substr(hash_hmac('sha256', "unsubscribe {$address}", (string) config('app.key')), 0, 32);
    }
}
