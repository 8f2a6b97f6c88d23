<?php

declare(strict_types=1);

namespace App\StandIn;

/** What a stand-in answers, or that it answers nothing. */
final readonly class HttpReply
{
    /**
     * @param  array<string, string>  $headers
     * @param  float  $after  seconds that it takes its time
     * @param  bool  $isLost  whether the connection ends without a word
     */
    private function __construct(
        public int $status,
        public string $body,
        public array $headers,
        public float $after = 0.0,
        public bool $isLost = false,
    ) {
    }

    /** @param  array<array-key, mixed>  $data */
    public static function json(int $status, array $data): self
    {
        $body = json_encode($data, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES);

        return new self($status, $body, ['Content-Type' => 'application/json']);
    }

    public static function page(string $html, int $status = 200): self
    {
        return new self($status, $html, ['Content-Type' => 'text/html; charset=utf-8']);
    }

    public static function elsewhere(string $path): self
    {
        return new self(303, '', ['Location' => $path]);
    }

    public function after(float $seconds): self
    {
        return new self($this->status, $this->body, $this->headers, $seconds);
    }

    public function lost(): self
    {
        return new self($this->status, '', [], 0.0, true);
    }

    public function with(string $header, string $value): self
    {
        return new self($this->status, $this->body, $this->headers + [$header => $value], $this->after);
    }

    public function text(): string
    {
        $head = "HTTP/1.1 {$this->status} X\r\n";
        foreach ($this->headers + ['Content-Length' => (string) strlen($this->body), 'Connection' => 'close'] as $name => $value) {
            $head .= "{$name}: {$value}\r\n";
        }

        return "{$head}\r\n{$this->body}";
    }
}
