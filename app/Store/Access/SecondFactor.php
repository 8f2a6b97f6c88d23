<?php

declare(strict_types=1);

namespace App\Store\Access;

/**
 * Codes of an authenticator application: time-based one-time passwords (RFC 6238) of six digits, SHA-1 and 30 seconds, which is what
 * such applications take for granted. One step to either side is taken too, for clocks that differ.
 */
final class SecondFactor
{
    private const SECONDS = 30;

    private const DIGITS = 6;

    private const ALPHABET = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567';

    /** @return string base32 (RFC 4648), of 160 bits */
    public static function secret(): string
    {
        $secret = '';
        foreach (str_split(random_bytes(32)) as $byte) {
            $secret .= self::ALPHABET[ord($byte) & 31];
        }

        return $secret;
    }

    /** The address that an authenticator application reads from a code or a link. */
    public static function uri(string $secret, string $company, string $email): string
    {
        $label = rawurlencode($company).':'.rawurlencode($email);

        return "otpauth://totp/{$label}?".http_build_query(['secret' => $secret, 'issuer' => $company], '', '&', PHP_QUERY_RFC3986);
    }

    /**
     * @param  int  $after  the last step whose code was taken: none is taken twice
     * @param  int  $at  seconds since 1970
     * @return ?int the step that the code belongs to; null when it is not right
     */
    public static function step(string $secret, string $code, int $after, int $at): ?int
    {
        $code = (string) preg_replace('/\s+/', '', $code);
        $now = intdiv($at, self::SECONDS);
        foreach ([$now, $now - 1, $now + 1] as $step) {
            if ($step > $after && hash_equals(self::code($secret, $step), $code)) {
                return $step;
            }
        }

        return null;
    }

    public static function code(string $secret, int $step): string
    {
        $hash = hash_hmac('sha1', pack('J', $step), self::decoded($secret), true);
        $offset = ord($hash[19]) & 15;
        $number = (int) (unpack('N', substr($hash, $offset, 4)) ?: [1 => 0])[1] & 0x7FFFFFFF;

        return str_pad((string) ($number % 10 ** self::DIGITS), self::DIGITS, '0', STR_PAD_LEFT);
    }

    /** @return list<string> ten, each good once */
    public static function recoveryCodes(): array
    {
        return array_map(static fn (): string => implode('-', str_split(strtolower(substr(self::secret(), 0, 10)), 5)), range(1, 10));
    }

    private static function decoded(string $secret): string
    {
        $bits = '';
        foreach (str_split(strtoupper($secret)) as $character) {
            $bits .= str_pad(decbin((int) strpos(self::ALPHABET, $character)), 5, '0', STR_PAD_LEFT);
        }

        return implode('', array_map(
            static fn (string $byte): string => chr((int) bindec($byte)),
            str_split(substr($bits, 0, intdiv(strlen($bits), 8) * 8), 8),
        ));
    }
}
