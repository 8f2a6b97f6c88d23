<?php

declare(strict_types=1);

namespace App\StandIn;

/** A mail as it comes over the wire (RFC 5322 and MIME), read as far as a shelf of letters needs it. */
final readonly class Eml
{
    /** @param  array<string, string>  $headers  decoded, by name in lower case */
    private function __construct(
        public array $headers,
        private string $body,
    ) {
    }

    public static function read(string $raw): self
    {
        [$head, $body] = preg_split('/\r?\n\r?\n/', $raw, 2) + [1 => ''];
        $headers = [];
        foreach (explode("\n", (string) preg_replace('/\r?\n[ \t]+/', ' ', $head)) as $line) {
            [$name, $value] = explode(':', $line, 2) + [1 => ''];
            $decoded = @iconv_mime_decode(trim($value), ICONV_MIME_DECODE_CONTINUE_ON_ERROR, 'UTF-8');
            $headers[strtolower(trim($name))] ??= is_string($decoded) ? $decoded : trim($value);
        }

        return new self($headers, $body);
    }

    public function header(string $name): string
    {
        return trim(
            $this->headers[strtolower($name)] ?? '',
            ' <>',
        ) === '' ? '' : ($name === 'Message-ID' ? trim($this->headers['message-id'], ' <>') : $this->headers[strtolower($name)]);
    }

    public function text(): string
    {
        return $this->part('text/plain') ?? trim(strip_tags((string) $this->part('text/html')));
    }

    public function html(): string
    {
        return $this->part('text/html') ?? '';
    }

    /** The first part of a media type, decoded into UTF-8; null when there is none. */
    private function part(string $wanted): ?string
    {
        $type = $this->headers['content-type'] ?? 'text/plain';
        if (preg_match('/^multipart\//i', $type) === 1 && preg_match('/boundary="?([^";]+)"?/i', $type, $found) === 1) {
            foreach (array_slice(explode("--{$found[1]}", $this->body), 1) as $piece) {
                $below = str_starts_with($piece, '--') ? null : self::read(ltrim($piece, "\r\n"))->part($wanted);
                if ($below !== null) {
                    return $below;
                }
            }

            return null;
        }
        if (! str_starts_with(strtolower($type), $wanted)) {
            return null;
        }
        $decoded = match (strtolower(trim($this->headers['content-transfer-encoding'] ?? ''))) {
            'base64' => (string) base64_decode($this->body),
            'quoted-printable' => quoted_printable_decode($this->body),
            default => $this->body,
        };
        $charset = preg_match('/charset="?([^";\s]+)"?/i', $type, $found) === 1 ? $found[1] : 'UTF-8';

        return trim(
            (string) @mb_convert_encoding(
                $decoded,
                'UTF-8',
                in_array(strtolower($charset), array_map(strtolower(...), mb_list_encodings()), true) ? $charset : 'UTF-8',
            ),
        );
    }
}
