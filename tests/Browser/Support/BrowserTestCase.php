<?php

declare(strict_types=1);

namespace Tests\Browser\Support;

use Facebook\WebDriver\Chrome\ChromeOptions;
use Facebook\WebDriver\Exception\ElementClickInterceptedException;
use Facebook\WebDriver\Exception\ElementNotInteractableException;
use Facebook\WebDriver\Exception\StaleElementReferenceException;
use Facebook\WebDriver\Exception\UnknownErrorException;
use Facebook\WebDriver\Remote\DesiredCapabilities;
use Facebook\WebDriver\Remote\RemoteWebDriver;
use Facebook\WebDriver\Remote\RemoteWebElement;
use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverDimension;
use Facebook\WebDriver\WebDriverKeys;
use PHPUnit\Framework\TestCase;

/** A real browser before the real application; bin/test starts both. Every wait is for a condition. */
abstract class BrowserTestCase extends TestCase
{
    private const PATIENCE_SECONDS = 40;

    protected RemoteWebDriver $browser;

    private static mixed $driver = null;

    private static int $port = 0;

    private static string $profile = '';

    public static function setUpBeforeClass(): void
    {
        // A port the system gives for a moment is free a moment later.
        $socket = stream_socket_server('tcp://127.0.0.1:0');
        self::$port = (int) substr((string) strrchr((string) stream_socket_get_name($socket, false), ':'), 1);
        fclose($socket);
        self::$profile = sys_get_temp_dir().'/vivid-ledger-browser-'.getmypid().'-'.bin2hex(random_bytes(4));
        self::$driver = proc_open(
            ['chromedriver', '--port='.self::$port],
            [1 => ['file', '/dev/null', 'w'], 2 => ['file', '/dev/null', 'w']],
            $pipes,
        );
        $until = microtime(true) + self::PATIENCE_SECONDS;
        while (@fsockopen('127.0.0.1', self::$port) === false && microtime(true) < $until) {
            usleep(50_000);
        }
    }

    public static function tearDownAfterClass(): void
    {
        proc_terminate(self::$driver);
        proc_close(self::$driver);
        (new \Illuminate\Filesystem\Filesystem)->deleteDirectory(self::$profile);
    }

    protected function setUp(): void
    {
        $options = (new ChromeOptions)->addArguments([
            '--headless=new', '--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking',
            '--disable-component-update',
            '--disable-sync', '--disable-dev-shm-usage', '--hide-scrollbars', '--user-data-dir='.self::$profile.'/'
                .bin2hex(random_bytes(4)),
        ]);
        $this->browser = RemoteWebDriver::create(
            'http://127.0.0.1:'.self::$port,
            DesiredCapabilities::chrome()->setCapability(ChromeOptions::CAPABILITY, $options),
        );
        $this->browser->manage()->window()->setSize(new WebDriverDimension(1280, 943)); // 1280 x 800 inside
    }

    protected function tearDown(): void
    {
        if ($this->status()->isFailure() || $this->status()->isError()) {
            $folder = dirname(__DIR__, 3).'/.runtime/failures';
            is_dir($folder) || mkdir($folder, 0777, true);
            $this->browser->takeScreenshot("{$folder}/{$this->name()}.png");
            file_put_contents("{$folder}/{$this->name()}.log", json_encode($this->browser->manage()->getLog('browser'), JSON_PRETTY_PRINT));
        }
        $this->browser->quit();
    }

    protected function open(string $path): void
    {
        $this->browser->get(rtrim((string) getenv('BROWSER_URL'), '/').$path);
    }

    protected function signIn(string $handle): void
    {
        $this->open('/');
        $this->see('#email')->sendKeys("{$handle}@larkmoss.example");
        $this->see('#password')->sendKeys('larkmoss');
        $this->press('Sign in');
        $this->see('.spine, .bottom-bar');
    }

    protected function signOut(): void
    {
        $this->api('DELETE', 'session');
        $this->open('/');
        $this->see('#email');
    }

    /** The element, as soon as it is shown. */
    protected function see(string $css, ?string $text = null): Seen
    {
        $what = $text === null ? "to see {$css}" : "to see “{$text}” in {$css}";
        $find = function () use ($css, $text): ?RemoteWebElement {
            foreach ($this->browser->findElements(WebDriverBy::cssSelector($css)) as $element) {
                if ($element->isDisplayed() && ($text === null || str_contains($this->plain($element->getText()), $text))) {
                    return $element;
                }
            }

            return null;
        };
        $this->until($find, $what);

        return new Seen($find, $this->until(...), $what);
    }

    protected function notSee(string $css, ?string $text = null): void
    {
        $this->until(
            fn (): bool => array_filter(
                $this->browser->findElements(WebDriverBy::cssSelector($css)),
                fn (RemoteWebElement $element): bool => $element->isDisplayed()
                    && ($text === null || str_contains($this->plain($element->getText()), $text)),
            ) === [],
            "not to see “{$text}” in {$css}",
        );
    }

    /** Presses the button or link that reads exactly so. */
    protected function press(string $text, string $css = 'button, a, [role=menuitem]'): void
    {
        $this->until(function () use ($css, $text): bool {
            foreach ($this->browser->findElements(WebDriverBy::cssSelector($css)) as $element) {
                if (($this->plain($element->getText()) === $text || $element->getAttribute('aria-label') === $text)
                    && $element->isDisplayed() && $element->isEnabled()) {
                    $element->click();

                    return true;
                }
            }

            return false;
        }, "to press “{$text}”");
    }

    /** Goes to a screen by its tab on the spine. */
    protected function tab(string $name): void
    {
        $this->see('.spine a', $name)->click();
        $this->see('.spine a.on', $name);
    }

    /** Opens the word of a rule that reads so. */
    protected function word(string $text): void
    {
        $this->press($text, '[data-word]');
        $this->see('.floating');
    }

    /** The same where nothing is left to choose behind it. */
    protected function choose(string $typed): void
    {
        $this->take($typed);
        $this->notSee('.floating');
    }

    /** Types into the open choice and takes the first that fits. */
    protected function take(string $typed): void
    {
        $this->see('.floating input:focus');
        $this->keys($typed);
        $this->until(
            fn (): bool => str_contains(
                mb_strtolower($this->plain($this->see('.floating [role=option]')->getText())),
                mb_strtolower(explode(' ', $typed)[0]),
            ),
            "to be offered “{$typed}”",
        );
        $this->keys(WebDriverKeys::ENTER);
    }

    /** Sends keys to whatever has the focus. */
    protected function keys(string ...$keys): void
    {
        foreach ($keys as $key) {
            $this->until(fn (): bool => (bool) $this->browser->switchTo()->activeElement()->sendKeys($key), 'for the focus to take a key');
        }
    }

    /** Goes on with a key until the focus is where it should be. */
    protected function goTo(string $attribute, string $value, string $key = WebDriverKeys::ARROW_RIGHT): void
    {
        for ($count = 0; $count < 80; $count++) {
            $there = $this->until(function () use ($attribute, $value, $key): string {
                $here = $this->browser->switchTo()->activeElement();
                if (($attribute === 'text' ? $this->plain($here->getText()) : (string) $here->getAttribute($attribute)) === $value) {
                    return 'there';
                }
                $here->sendKeys($key);

                return 'on the way';
            }, "for the focus to come to {$value}");
            if ($there === 'there') {
                return;
            }
        }
        self::fail("The focus never came to {$value}. The rows: ".implode(' / ', $this->rows()));
    }

    /**
     * A request as the screens send it, for what a journey is not about.
     *
     * @param  array<string, mixed>  $body
     * @return array<string, mixed>
     */
    protected function api(string $method, string $path, array $body = []): array
    {
        $this->browser->manage()->timeouts()->setScriptTimeout(15);
        $answer = $this->browser->executeAsyncScript(<<<'JS'
            const [method, path, body, done] = arguments;
            const cookie = () => decodeURIComponent((document.cookie.match(/XSRF-TOKEN=([^;]+)/) ?? [])[1] ?? '');
            (async () => {
                if (method !== 'GET' && !cookie()) await fetch('/session/cookie');
                const answer = await fetch(
                    '/api/' + path,
                    { method, headers: { Accept: 'application/json', 'Content-Type': 'application/json', 'X-XSRF-TOKEN': cookie() },
                        body: method === 'GET'
                        ? undefined : body },
                );
                done([answer.status, answer.status === 204 ? '{}' : await answer.text()]);
            })().catch((trouble) => done([0, String(trouble)]));
            JS, [$method, $path, json_encode((object) $body)]);
        self::assertIsArray($answer);
        self::assertContains($answer[0], [200, 201, 202, 204], "{$method} {$path}: {$answer[1]}");

        return (array) json_decode((string) $answer[1], true);
    }

    protected function saved(): void
    {
        $this->see('[aria-live=polite]', 'saved');
    }

    /** @return list<string> the rows of the rule page as they read */
    protected function rows(): array
    {
        // What could be added shows only in the row that has the focus, and is no part of the sentence.
        $rows = $this->browser->executeScript(
            'return [...document.querySelectorAll("[data-row] .b")].map((row) => { const copy = row.cloneNode(true); '
                .'copy.querySelectorAll(".more").forEach((word) => word.remove()); return copy.textContent; })',
        );

        return array_map(fn (mixed $row): string => $this->plain((string) $row), is_array($rows) ? $rows : []);
    }

    protected function text(string $css): string
    {
        return $this->plain($this->see($css)->getText());
    }

    /**
     * @template T
     *
     * @param  callable(): T  $condition
     * @return T
     */
    protected function until(callable $condition, string $what): mixed
    {
        $until = microtime(true) + self::PATIENCE_SECONDS;
        do {
            try {
                $met = $condition();
                if ($met !== null && $met !== false) {
                    $this->addToAssertionCount(1);

                    return $met;
                }
            } catch (ElementNotInteractableException|ElementClickInterceptedException) {
                // Something passes before it; look again.
            } catch (StaleElementReferenceException|UnknownErrorException) {
                // The screen was drawn anew in between, or a new page came.
            }
            usleep(40_000);
        } while (microtime(true) < $until);
        self::fail(
            "Waited in vain {$what}. The screen: ".mb_substr(
                $this->plain($this->browser->findElement(WebDriverBy::tagName('body'))->getText()),
                0,
                1500,
            ),
        );
    }

    private function plain(string $text): string
    {
        return trim((string) preg_replace('/\s+/u', ' ', strtr($text, ["\u{2011}" => '-', "\u{A0}" => ' '])));
    }
}
