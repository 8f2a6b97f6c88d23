<?php

declare(strict_types=1);

namespace App\StandIn;

/** A request as it came over the wire. */
final readonly class HttpRequest
{
    /** @param  array<string, string>  $headers  by name in small letters */
    private function __construct(public string $method, public string $path, public array $headers, public string $body)
    {
    }

    /** Null while it has not come whole. */
    public static function read(string $heard): ?self
    {
        if (! str_contains($heard, "\r\n\r\n")) {
            return null;
        }
        [$head, $body] = explode("\r\n\r\n", $heard, 2);
        $lines = explode("\r\n", $head);
        [$method, $path] = explode(' ', $lines[0], 3) + [1 => '/'];
        $headers = [];
        foreach (array_slice($lines, 1) as $line) {
            [$name, $value] = explode(':', $line, 2) + [1 => ''];
            $headers[strtolower(trim($name))] = trim($value);
        }

        return strlen($body) < (int) ($headers['content-length'] ?? 0) ? null : new self($method, $path, $headers, $body);
    }

    public function header(string $name): string
    {
        return $this->headers[strtolower($name)] ?? '';
    }

    /** @return array<array-key, mixed> what the body says as JSON, or as a form */
    public function given(): array
    {
        if (str_starts_with($this->header('Content-Type'), 'application/x-www-form-urlencoded')) {
            parse_str($this->body, $form);

            return $form;
        }
        $given = json_decode($this->body, true);

        return is_array($given) ? $given : [];
    }
}
