<?php

declare(strict_types=1);

namespace Tests\Core\Support;

use VividLedger\Words\Words;

/** The sentences of the server in German, and what is done in it. */
final class German
{
    /** @return array<string, string> by the English ones */
    public static function sentences(): array
    {
        /** @var array<string, string> $sentences */
        $sentences = json_decode((string) file_get_contents(dirname(__DIR__, 3).'/lang/de.json'), true, 4, JSON_THROW_ON_ERROR);

        return $sentences;
    }

    /**
     * @template T
     *
     * @param  \Closure(): T  $what
     * @return T
     */
    public static function of(\Closure $what): mixed
    {
        static $sentences;
        $sentences ??= self::sentences();
        Words::speak('de', $sentences);
        try {
            return $what();
        } finally {
            Words::speak(Words::OWN, []);
        }
    }
}
