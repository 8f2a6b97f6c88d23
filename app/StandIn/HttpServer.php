<?php

declare(strict_types=1);

namespace App\StandIn;

use Closure;

/** As much of HTTP/1.1 (RFC 9112) as a stand-in needs: one request for each connection, many at once, one process. */
final class HttpServer
{
    private const MOST_BYTES = 2_000_000;

    /** @var resource */
    private $socket;

    /** @var array<int, array{resource, string}> by connection: the socket, and what came in */
    private array $open = [];

    /** @var list<array{float, resource, string}> answers that are held back: when they are due, for whom, and what they say */
    private array $held = [];

    /** @param  Closure(HttpRequest): HttpReply  $answer */
    public function __construct(string $address, private readonly Closure $answer)
    {
        $socket = @stream_socket_server("tcp://{$address}", $code, $message);
        $this->socket = $socket === false ? throw new \RuntimeException("Nothing can listen on {$address}: {$message}") : $socket;
        stream_set_blocking($this->socket, false);
    }

    public function address(): string
    {
        return (string) stream_socket_get_name($this->socket, false);
    }

    /** Serves whoever speaks, for at most so long. */
    public function serve(float $seconds): void
    {
        $this->letGo();
        $ready = [$this->socket, ...array_column($this->open, 0)];
        $none = null;
        if (@stream_select($ready, $none, $none, (int) $seconds, (int) (($seconds - (int) $seconds) * 1_000_000)) < 1) {
            return;
        }
        foreach ($ready as $socket) {
            $socket === $this->socket ? $this->greet() : $this->hear((int) $socket);
        }
    }

    private function greet(): void
    {
        $client = @stream_socket_accept($this->socket, 0);
        if ($client !== false) {
            stream_set_blocking($client, false);
            $this->open[(int) $client] = [$client, ''];
        }
    }

    private function hear(int $id): void
    {
        [$client, $heard] = $this->open[$id];
        $piece = fread($client, 65536);
        if ($piece === false || ($piece === '' && feof($client)) || strlen($heard) > self::MOST_BYTES) {
            fclose($client);
            unset($this->open[$id]);

            return;
        }
        $heard .= $piece;
        $this->open[$id] = [$client, $heard];
        if (str_contains($heard, "\r\nExpect: 100-continue\r\n") && str_ends_with($heard, "\r\n\r\n")) {
            fwrite($client, "HTTP/1.1 100 Continue\r\n\r\n");
        }
        $request = HttpRequest::read($heard);
        if ($request === null) {
            return;
        }
        unset($this->open[$id]);
        $reply = ($this->answer)($request);
        if ($reply->isLost) {
            fclose($client);
        } elseif ($reply->after > 0) {
            $this->held[] = [microtime(true) + $reply->after, $client, $reply->text()];
        } else {
            self::say($client, $reply->text());
        }
    }

    private function letGo(): void
    {
        $held = [];
        foreach ($this->held as [$due, $client, $text]) {
            if ($due <= microtime(true)) {
                self::say($client, $text);
            } else {
                $held[] = [$due, $client, $text];
            }
        }
        $this->held = $held;
    }

    /** @param  resource  $client */
    private static function say($client, string $text): void
    {
        stream_set_blocking($client, true);
        @fwrite($client, $text);
        fclose($client);
    }
}
