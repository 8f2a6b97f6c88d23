<?php

declare(strict_types=1);

namespace Tests\Browser;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** The web server as bin/start sets it up: what it serves, what it refuses, and what it tells the browser. */
final class ServerTest extends TestCase
{
    public function test_pages_carry_the_headers_that_keep_a_browser_safe(): void
    {
        [$status, $headers, $body] = $this->get('/rules/1');
        self::assertSame(200, $status);
        self::assertStringContainsString("default-src 'self'", $headers['content-security-policy']);
        self::assertSame(
            ['nosniff', 'DENY', 'same-origin'],
            [$headers['x-content-type-options'], $headers['x-frame-options'], $headers['referrer-policy']],
        );
        self::assertStringContainsString('camera=()', $headers['permissions-policy']);
        self::assertSame('same-origin', $headers['cross-origin-opener-policy']);
        self::assertDoesNotMatchRegularExpression('#(src|href)="https?://#', $body, 'everything comes from the application itself');
        self::assertMatchesRegularExpression('#src="/build/assets/main-[^"]+\.js"#', $body);
    }

    public function test_what_is_built_may_be_kept_and_loads_nothing_from_elsewhere(): void
    {
        preg_match_all('#(?:src|href)="(/build/assets/[^"]+)"#', $this->get('/')[2], $found);
        self::assertNotSame([], $found[1]);
        foreach (array_unique($found[1]) as $asset) {
            [$status, $headers, $body] = $this->get($asset);
            self::assertSame(200, $status, $asset);
            self::assertStringContainsString('immutable', $headers['cache-control']);
            // What is very short is never packed.
            self::assertSame(strlen($body) > 1024 ? 'Accept-Encoding' : '', $headers['vary'] ?? '', 'packed and unpacked are two answers');
            self::assertSame(
                ['nosniff', 'DENY'],
                [$headers['x-content-type-options'], $headers['x-frame-options']],
                'what is built is guarded too',
            );
            self::assertDoesNotMatchRegularExpression('#url\(["\']?https?://|import\(["\']https?://#', $body, $asset);
        }
    }

    public function test_robots_are_sent_away_and_the_mark_is_kept_for_a_day(): void
    {
        self::assertStringContainsString("Disallow: /\n", $this->get('/robots.txt')[2]);
        self::assertStringContainsString('max-age=86400', $this->get('/mark.svg')[1]['cache-control']);
    }

    /** @return iterable<string, array{string, int}> */
    public static function closed(): iterable
    {
        yield 'settings' => ['/.env', 404];
        yield 'a hidden folder' => ['/.git/config', 404];
        yield 'a built file that is not there' => ['/build/assets/none.js', 404];
        yield 'the API without signing in' => ['/api/records/ticket', 401];
        yield 'an address of the API that is not there' => ['/api/none', 404];
    }

    #[DataProvider('closed')]
    public function test_what_is_not_for_everybody_is_closed(string $path, int $status): void
    {
        self::assertSame($status, $this->get($path)[0]);
    }

    public function test_what_is_too_large_or_too_long_is_told_as_everything_else_is(): void
    {
        $most = (require dirname(__DIR__, 2).'/config/limits.php')['file_bytes'];
        foreach ([['/api/session', str_repeat('a', $most + 1_000_000), 413, 'too_large'], ['/api/rules?q='
            .str_repeat('a', 60_000), '', 414, 'too_long']] as [$path, $body, $status, $code]) {
            [$found, $headers, $answer] = $this->get(
                $path,
                $body === '' ? [] : ['method' => 'POST', 'content' => $body, 'header' => 'Content-Type: application/json'],
            );
            self::assertSame(
                [$status, 'application/problem+json', 'nosniff'],
                [$found, $headers['content-type'], $headers['x-content-type-options']],
            );
            self::assertSame([$code, $status], [json_decode($answer, true)['code'], json_decode($answer, true)['status']]);
        }
    }

    public function test_a_forged_request_is_refused(): void
    {
        $context = stream_context_create(['http' => ['method' => 'POST', 'ignore_errors' => true,
            'content' => '{"email":"ines.okafor@larkmoss.example","password":"larkmoss"}',
            'header' => "Content-Type: application/json\r\nAccept: application/json\r\nOrigin: ".getenv('BROWSER_URL')]]);
        $answer = json_decode((string) file_get_contents(getenv('BROWSER_URL').'/api/session', false, $context), true);

        self::assertSame('session_expired', $answer['code'], 'without the token of the page nobody signs in');
    }

    public function test_a_busy_port_is_named(): void
    {
        $port = (int) parse_url((string) getenv('BROWSER_URL'), PHP_URL_PORT);
        exec('bash '.dirname(__DIR__, 2)."/bin/start --port {$port} 2>&1", $output, $code);

        self::assertSame(1, $code);
        self::assertMatchesRegularExpression(
            "/Port {$port} \(the web address\) is in use by nginx, process \d+\. Stop that program, or choose another: bin\/start --port "
                ."\d+/",
            implode("\n", $output),
        );
    }

    /**
     * @param  array<string, string>  $with  besides the address
     * @return array{int, array<string, string>, string} status, headers and body
     */
    private function get(string $path, array $with = []): array
    {
        $body = (string) file_get_contents(
            getenv('BROWSER_URL').$path,
            false,
            stream_context_create(['http' => $with + ['ignore_errors' => true]]),
        );
        preg_match('/ (\d{3}) /', $http_response_header[0], $status);
        $headers = [];
        foreach (array_slice($http_response_header, 1) as $line) {
            [$name, $value] = explode(':', $line, 2) + [1 => ''];
            $headers[strtolower($name)] = trim($value);
        }

        return [(int) $status[1], $headers, $body];
    }
}
