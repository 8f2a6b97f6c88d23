<?php

declare(strict_types=1);

namespace App\Store\Access;

use App\Store\DomainError;
use VividLedger\Words\Words;

/** What a password has to be: long, and none of those that everybody tries first. */
final class Passwords
{
    public const LEAST = 10;

    private const MOST = 200;

    /** At least so many different characters, so that length is not one of them repeated. */
    private const DIFFERENT = 5;

    /**
     * @param  list<string>  $near  names and addresses that somebody would try first
     *
     * @throws DomainError at "/password"
     */
    public static function check(string $password, array $near): void
    {
        $trouble = match (true) {
            ! mb_check_encoding($password, 'UTF-8') => Words::say('A password is text.'),
            mb_strlen($password) < self::LEAST => Words::say(
                'A password has at least {least} characters. A few words in a row do well.',
                least: self::LEAST,
            ),
            mb_strlen($password) > self::MOST => Words::say('A password has at most {most} characters.', most: self::MOST),
            count(array_unique(mb_str_split($password))) < self::DIFFERENT => Words::say('That is nearly one character repeated.'),
            self::isCommon($password) => Words::say('That is one of the passwords that everybody tries first.'),
            self::isNear($password, $near) => Words::say('That is made of your name, your address or the name of the company.'),
            default => null,
        };
        if ($trouble !== null) {
            throw DomainError::at('/password', $trouble);
        }
    }

    /** Common as it stands, or with digits and signs behind it. */
    private static function isCommon(string $password): bool
    {
        static $common = null;
        $common ??= array_flip(file(resource_path('passwords/common.txt'), FILE_IGNORE_NEW_LINES) ?: []);
        $plain = mb_strtolower($password);
        $bare = (string) preg_replace('/[^\p{L}]+$/u', '', $plain);

        return isset($common[$plain]) || ($bare !== '' && isset($common[$bare]));
    }

    /** @param  list<string>  $near */
    private static function isNear(string $password, array $near): bool
    {
        $plain = mb_strtolower($password);
        foreach ($near as $words) {
            foreach (preg_split('/[^\p{L}\p{N}]+/u', mb_strtolower($words), -1, PREG_SPLIT_NO_EMPTY) ?: [] as $word) {
                $plain = mb_strlen($word) >= 3 ? str_replace($word, '', $plain) : $plain;
            }
        }

        return mb_strlen($plain) < mb_strlen($password) && mb_strlen($plain) < self::LEAST - 4;
    }
}
