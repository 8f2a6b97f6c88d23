<?php

declare(strict_types=1);

namespace App\StandIn;

/**
 * A stand-in for an accounting system: takes customers and invoices, by rules of its own, and can be told to be slow, to fail, or to lose
 * its answer after it has done the work. What comes twice under one key is done once.
 */
final class BackOffice
{
    public const MODES = ['normal' => 'as it should', 'slow' => 'slow', 'failing' => 'failing', 'losing' => 'losing its answers'];

    private const FIRST_NUMBER = 10_001;

    private const SLOW_SECONDS = 4.0;

    private const LOG = 50;

    /**
     * @var array{
     *     customers: array<string, array<string, string>>, invoices: list<array<string, string>>,
     *     keys: array<string, array{int, array<array-key, mixed>}>, log: list<array{string, string, int}>, mode: string,
     * }
     */
    private array $books = ['customers' => [], 'invoices' => [], 'keys' => [], 'log' => [], 'mode' => 'normal'];

    /**
     * @param  string  $file  where the books are kept
     * @param  string  $secret  without which its doors are shut
     */
    public function __construct(private readonly string $file, private readonly string $secret)
    {
        $kept = is_file($file) ? json_decode((string) file_get_contents($file), true) : null;
        if (is_array($kept)) {
            // Only we write the file, as it is here.
            $this->books = array_replace($this->books, array_intersect_key($kept, $this->books));
        }
    }

    public function answer(HttpRequest $request): HttpReply
    {
        $path = (string) parse_url($request->path, PHP_URL_PATH);
        $isPage = $path === '/' || $path === '/mode';
        if (! $this->isAllowed($request, $isPage)) {
            return $isPage
                ? HttpReply::page('<p>Shut. The secret is the password.</p>', 401)->with('WWW-Authenticate', 'Basic realm="Back office"')
                : HttpReply::json(401, ['message' => 'Shut.']);
        }
        if ($path === '/') {
            return HttpReply::page(BackOfficePage::of($this->books));
        }
        if ($path === '/mode' && $request->method === 'POST') {
            $mode = $request->given()['mode'] ?? '';
            $this->books['mode'] = is_string($mode) && isset(self::MODES[$mode]) ? $mode : 'normal';
            $this->keep();

            return HttpReply::elsewhere('/');
        }

        return $this->work($request, $path);
    }

    private function isAllowed(HttpRequest $request, bool $isPage): bool
    {
        $given = $request->header('Authorization');
        $basic = $isPage && str_starts_with($given, 'Basic ') ? explode(':', (string) base64_decode(substr($given, 6)), 2)[1] ?? '' : '';

        return hash_equals("Bearer {$this->secret}", $given) || ($basic !== '' && hash_equals($this->secret, $basic));
    }

    private function work(HttpRequest $request, string $path): HttpReply
    {
        if ($this->books['mode'] === 'failing') {
            return $this->told($request, 500, ['message' => 'The books are being mended.']);
        }
        $key = $request->header('Idempotency-Key');
        $isRead = $request->method === 'GET';
        if (! $isRead && $key !== '' && isset($this->books['keys'][$key])) {
            [$status, $data] = $this->books['keys'][$key];
        } else {
            [$status, $data] = $this->booked($request->method, $path, $request->given());
            if (! $isRead && $key !== '' && $status < 300) {
                $this->books['keys'][$key] = [$status, $data];
            }
        }
        $reply = $this->told($request, $status, $data);

        return match (true) {
            $this->books['mode'] === 'losing' && ! $isRead => $reply->lost(),
            $this->books['mode'] === 'slow' => $reply->after(self::SLOW_SECONDS),
            default => $reply,
        };
    }

    /**
     * @param  array<array-key, mixed>  $given
     * @return array{int, array<array-key, mixed>}
     */
    private function booked(string $method, string $path, array $given): array
    {
        $text = static fn (string $name): string => is_scalar($given[$name] ?? null) ? trim((string) $given[$name]) : '';
        if ($path === '/customers' && $method === 'GET') {
            return [200, ['customers' => array_values($this->books['customers'])]];
        }
        if ($path === '/customers' && $method === 'POST') {
            return $this->customer(null, $text('name'), $text('tax_number'), $text('debtor'));
        }
        if (preg_match('#^/customers/(K-\d+)$#D', $path, $found) === 1 && $method === 'PUT') {
            return isset($this->books['customers'][$found[1]])
                ? $this->customer($found[1], $text('name'), $text('tax_number'), $text('debtor'))
                : [404, ['message' => "There is no customer {$found[1]}."]];
        }
        if ($path === '/invoices' && $method === 'POST') {
            $customer = $text('customer');
            if (! isset($this->books['customers'][$customer])) {
                return [422, ['message' => "There is no customer {$customer}."]];
            }
            if (preg_match('/^\d{1,9}(\.\d{1,2})?$/D', $text('amount')) !== 1) {
                return [422, ['message' => 'An amount has at most two decimals.']];
            }
            $number = 'I-'.(count($this->books['invoices']) + 1);
            $this->books['invoices'][] = ['number' => $number, 'customer' => $customer, 'amount' => $text('amount')];

            return [201, ['number' => $number]];
        }

        return [404, ['message' => 'There is nothing here.']];
    }

    /** @return array{int, array<array-key, mixed>} */
    private function customer(?string $number, string $name, string $tax, string $debtor): array
    {
        if ($name === '') {
            return [422, ['message' => 'A customer has a name.']];
        }
        if (preg_match('/^[A-Z]{2}\d{9}$/D', $tax) !== 1) {
            return [422, ['message' => "‘{$tax}’ is no tax number: two capital letters and nine digits."]];
        }
        foreach ($this->books['customers'] as $other) {
            if ($other['tax_number'] === $tax && $other['number'] !== $number) {
                return [409, ['message' => "{$other['number']} has that tax number already.", 'number' => $other['number']]];
            }
        }
        $isNew = $number === null;
        $number ??= 'K-'.(self::FIRST_NUMBER + count($this->books['customers']));
        $this->books['customers'][$number] = ['number' => $number, 'name' => $name, 'tax_number' => $tax, 'debtor' => $debtor];

        return [$isNew ? 201 : 200, $this->books['customers'][$number]];
    }

    /** @param  array<array-key, mixed>  $data */
    private function told(HttpRequest $request, int $status, array $data): HttpReply
    {
        $line = [gmdate('H:i:s'), "{$request->method} {$request->path}", $status];
        $this->books['log'] = array_slice([$line, ...$this->books['log']], 0, self::LOG);
        $this->keep();

        return HttpReply::json($status, $data);
    }

    private function keep(): void
    {
        file_put_contents("{$this->file}.new", json_encode($this->books, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE));
        rename("{$this->file}.new", $this->file);
    }
}
