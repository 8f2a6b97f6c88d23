<?php

declare(strict_types=1);

namespace App\Store;

use Illuminate\Contracts\Foundation\Application;
use VividLedger\Words\Words;

/** The languages in which the application is, with their message files: lang/{code}.json for the server, lang/screens for the screens. */
final class Languages
{
    /** English is the language of the sentences themselves. */
    public const CODES = [Words::OWN, 'de'];

    /** @var array<string, array<string, string>> */
    private array $read = [];

    public function __construct(private readonly Application $app)
    {
    }

    /** From now on this process speaks a language; one that it does not know is English. */
    public function speak(string $code): void
    {
        $code = in_array($code, self::CODES, true) ? $code : Words::OWN;
        $this->app->setLocale($code);
        Words::speak($code, $this->sentences($code));
    }

    /**
     * What is done in a language; afterwards it is the one before.
     *
     * @template T
     *
     * @param  \Closure(): T  $what
     * @return T
     */
    public function in(string $code, \Closure $what): mixed
    {
        $before = Words::language();
        $this->speak($code);
        try {
            return $what();
        } finally {
            $this->speak($before);
        }
    }

    /** @return array<string, string> by the English ones */
    private function sentences(string $code): array
    {
        if ($code === Words::OWN) {
            return [];
        }
        if (! isset($this->read[$code])) {
            /** @var array<string, string> $sentences checked by a test */
            $sentences = json_decode((string) file_get_contents($this->app->langPath("{$code}.json")), true, 4, JSON_THROW_ON_ERROR);
            $this->read[$code] = $sentences;
        }

        return $this->read[$code];
    }
}
