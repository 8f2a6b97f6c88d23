<?php

declare(strict_types=1);

namespace Bench;

use Facebook\WebDriver\Remote\RemoteWebDriver;
use Illuminate\Contracts\Console\Kernel;

/** What Lighthouse says of the two pages that people have open all day, on a desk and on a slow phone; the median of three looks. */
final class Audit
{
    private const LOOKS = 3;

    private const PAGES = ['a rule' => '/rules/1', 'a record' => '/records/ticket/1'];

    private const LEAST = ['desktop' => 90, 'mobile' => 70];

    /** @param  RemoteWebDriver  $browser  signed in at the address */
    public static function pages(RemoteWebDriver $browser, string $url): void
    {
        $folder = (string) getenv('LIGHTHOUSE');
        if ($folder === '') {
            return;
        }
        app()->forgetScopedInstances();
        app(Kernel::class)->call('migrate:fresh', ['--force' => true]);
        app(Kernel::class)->call('demo:load');
        $cookies = self::signIn($browser, $url);
        foreach (self::LEAST as $form => $least) {
            foreach (self::PAGES as $name => $path) {
                $looks = array_map(static fn (): array => self::look($folder, $url.$path, $cookies, $form), range(1, self::LOOKS));
                $middle = static fn (string $of): float => Timing::median(array_map(floatval(...), array_column($looks, $of)));
                Figures::note(sprintf(
                    '%s, %s: %d requests, %d kB, contents after %.1f s, ready after %.1f s, failing: %s', $name, $form, $middle('requests'),
                    $middle('kilobytes'), $middle('contents'), $middle('ready'), implode(', ', $looks[0]['failing']) ?: 'nothing',
                ));
                Figures::one("{$name}, {$form}: performance", $middle('performance'), 'of 100', "at least {$least}");
                Figures::one("{$name}, {$form}: accessibility", $middle('accessibility'), 'of 100', '100');
            }
        }
    }

    private static function signIn(RemoteWebDriver $browser, string $url): string
    {
        ScreenBench::signIn($browser, $url);

        return implode('; ', array_map(
            static fn ($cookie): string => "{$cookie->getName()}={$cookie->getValue()}", $browser->manage()->getCookies(),
        ));
    }

    /**
     * @return array{performance: int, accessibility: int, failing: list<string>, requests: int, kilobytes: int, contents: float,
     *               ready: float} as bench/lighthouse.mjs writes it
     */
    private static function look(string $folder, string $url, string $cookies, string $form): array
    {
        $command = ['node', base_path('bench/lighthouse.mjs'), $folder, $url, $cookies, $form];
        $command = implode(' ', array_map(escapeshellarg(...), $command));

        return json_decode((string) shell_exec($command), true, flags: JSON_THROW_ON_ERROR);
    }
}
