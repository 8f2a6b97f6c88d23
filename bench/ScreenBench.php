<?php

declare(strict_types=1);

namespace Bench;

use Facebook\WebDriver\Chrome\ChromeOptions;
use Facebook\WebDriver\Remote\DesiredCapabilities;
use Facebook\WebDriver\Remote\RemoteWebDriver;
use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverDimension;
use Illuminate\Database\Connection;

/** In a real browser: how long it takes from a click to the next screen with its contents, and from a key to what it moves in a list. */
final class ScreenBench
{
    private const TICKETS = 200_000;

    private const ROUNDS = 9;

    /** By the name on the spine or the tab: what is there once the screen shows what it is for. */
    private const SCREENS = [
        '/tasks' => '[data-task]', '/records/ticket' => 'table.ledger tbody tr', '/rules' => 'a.line, .empty',
        '/ledger' => '[data-number], .empty', '/records/ticket/77' => '[data-field]', '/sign-offs' => '.empty, .line',
        '/' => 'main .spread ul li a, main .spread table',
    ];

    /** From the click to two frames after the contents stand there: by then they have been painted. */
    private const GO = <<<'JS'
        const [path, shown, done] = arguments;
        const link = document.createElement('a');
        link.href = path;
        document.querySelector('.spine').append(link);
        const before = document.querySelector('main .spread');
        const from = performance.now();
        link.click();
        link.remove();
        const look = () => document.querySelector('main .spread') !== before && document.querySelector(shown)
            ? requestAnimationFrame(() => requestAnimationFrame(() => done(performance.now() - from)))
            : performance.now() - from > 15000 ? done(-1) : requestAnimationFrame(look);
        look();
        JS;

    private const KEY = <<<'JS'
        const [key, done] = arguments;
        const at = () => document.querySelector('table.ledger tr[aria-selected=true]');
        const before = at();
        const from = performance.now();
        document.body.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
        const look = () => at() !== before
            ? requestAnimationFrame(() => done(performance.now() - from))
            : performance.now() - from > 5000 ? done(-1) : requestAnimationFrame(look);
        look();
        JS;

    public static function run(): void
    {
        ManyTickets::fill($db = app(Connection::class), self::TICKETS);
        ManyTickets::tasks($db);
        $port = 20_000 + random_int(0, 9_999);
        $driver = proc_open(['chromedriver', "--port={$port}"], [1 => ['file', '/dev/null', 'w'], 2 => ['file', '/dev/null', 'w']], $pipes);
        try {
            for ($until = microtime(true) + 15; @fsockopen('127.0.0.1', $port) === false && microtime(true) < $until;) {
                usleep(50_000);
            }
            $browser = RemoteWebDriver::create("http://127.0.0.1:{$port}", DesiredCapabilities::chrome()->setCapability(
                ChromeOptions::CAPABILITY,
                (new ChromeOptions)->addArguments(['--headless=new', '--no-sandbox', '--disable-gpu', '--disable-dev-shm-usage']),
            ));
            $browser->manage()->window()->setSize(new WebDriverDimension(1280, 943));
            $browser->manage()->timeouts()->setScriptTimeout(20);
            try {
                self::measure($browser);
            } finally {
                $browser->quit();
            }
        } finally {
            if (is_resource($driver)) {
                proc_terminate($driver);
                proc_close($driver);
            }
        }
    }

    public static function signIn(RemoteWebDriver $browser, string $url): void
    {
        $browser->manage()->deleteAllCookies();
        $browser->get($url.'/');
        $browser->wait(20)->until(static fn (): bool => $browser->findElements(WebDriverBy::cssSelector('#email')) !== []);
        $browser->findElement(WebDriverBy::cssSelector('#email'))->sendKeys('ines.okafor@larkmoss.example');
        $browser->findElement(WebDriverBy::cssSelector('#password'))->sendKeys("larkmoss\n");
        $browser->wait(20)->until(static fn (): bool => $browser->findElements(WebDriverBy::cssSelector('.spine')) !== []);
    }

    private static function measure(RemoteWebDriver $browser): void
    {
        $url = rtrim((string) config('app.url'), '/');
        self::signIn($browser, $url);
        $slowest = 0.0;
        for ($round = 0, $times = []; $round <= self::ROUNDS; $round++) {
            foreach (self::SCREENS as $path => $shown) {
                $time = (float) $browser->executeAsyncScript(self::GO, [$path, $shown]);
                if ($time < 0) {
                    throw new \LogicException("{$path} does not come.");
                }
                // The first time its script is still to be fetched.
                if ($round > 0) {
                    $times[$path][] = $time;
                }
            }
        }
        foreach ($times as $path => $of) {
            $slowest = max($slowest, $median = Timing::median($of));
            Figures::note(sprintf('to %-20s median %4.0f ms', $path, $median));
        }
        Figures::one('from a click to the slowest screen with its contents', $slowest, 'ms', 'under 200');
        $browser->executeAsyncScript(self::GO, ['/records/ticket', 'table.ledger tbody tr']);
        $keys = [];
        for ($count = 0; $count < 20; $count++) {
            $time = (float) $browser->executeAsyncScript(self::KEY, [$count === 0 || $count % 5 !== 0 ? 'ArrowDown' : 'ArrowUp']);
            if ($time < 0) {
                throw new \LogicException('The key moves nothing.');
            }
            $keys[] = $time;
        }
        Figures::one('a key in a list', Timing::median($keys), 'ms', 'under 50');
        Audit::pages($browser, $url);
    }
}
