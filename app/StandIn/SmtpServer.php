<?php

declare(strict_types=1);

namespace App\StandIn;

use Closure;

/** A mail server that takes everything and delivers nothing: the commands of RFC 5321 that a sender needs, one process, many at once. */
final class SmtpServer
{
    private const MOST_BYTES = 20_000_000;

    /** @var resource */
    private $socket;

    /** @var array<int, array{resource, string, bool}> by connection: the socket, what came in, and whether it is a letter */
    private array $open = [];

    /** @param  Closure(string): mixed  $take  is handed each letter as it came, and says false when it cannot take it */
    public function __construct(string $address, private readonly Closure $take)
    {
        $socket = @stream_socket_server("tcp://{$address}", $code, $message);
        $this->socket = $socket === false ? throw new \RuntimeException("The mail room cannot listen on {$address}: {$message}") : $socket;
        stream_set_blocking($this->socket, false);
    }

    public function address(): string
    {
        return (string) stream_socket_get_name($this->socket, false);
    }

    /** Serves whoever speaks, for at most so long. */
    public function serve(float $seconds): void
    {
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
            $this->open[(int) $client] = [$client, '', false];
            fwrite($client, "220 mail room\r\n");
        }
    }

    private function hear(int $id): void
    {
        [$client, $heard, $letter] = $this->open[$id];
        $piece = fread($client, 65536);
        if ($piece === false || $piece === '' && feof($client) || strlen($heard) > self::MOST_BYTES) {
            $this->leave($id);

            return;
        }
        $this->open[$id][1] = $heard .= $piece;
        while (isset($this->open[$id])) {
            [, $heard, $letter] = $this->open[$id];
            $end = $letter ? strpos($heard, "\r\n.\r\n") : strpos($heard, "\r\n");
            if ($end === false) {
                return;
            }
            $said = substr($heard, 0, $end);
            $this->open[$id][1] = substr($heard, $end + ($letter ? 5 : 2));
            $letter ? $this->letter($id, $said) : $this->command($id, $said);
        }
    }

    private function letter(int $id, string $raw): void
    {
        $this->open[$id][2] = false;
        // A line that began with a dot was sent with two (RFC 5321, 4.5.2).
        $taken = ($this->take)((string) preg_replace('/^\.\./m', '.', $raw)) !== false;
        fwrite($this->open[$id][0], $taken ? "250 on the shelf\r\n" : "451 not just now, try again\r\n");
    }

    private function command(int $id, string $line): void
    {
        $client = $this->open[$id][0];
        $verb = strtoupper(strtok($line, ' :') ?: '');
        if ($verb === 'QUIT') {
            fwrite($client, "221 good bye\r\n");
            $this->leave($id);

            return;
        }
        $this->open[$id][2] = $verb === 'DATA';
        fwrite($client, match ($verb) {
            'EHLO' => "250-mail room\r\n250-8BITMIME\r\n250 SIZE ".self::MOST_BYTES."\r\n",
            'HELO', 'MAIL', 'RCPT', 'RSET', 'NOOP' => "250 ok\r\n",
            'DATA' => "354 end with a dot on a line of its own\r\n",
            default => "502 not known here\r\n",
        });
    }

    private function leave(int $id): void
    {
        fclose($this->open[$id][0]);
        unset($this->open[$id]);
    }
}
