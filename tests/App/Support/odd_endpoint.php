<?php

declare(strict_types=1);

// A server that takes many at a time, with a habit for each path: "slow" takes its time, "bytes" answers what is no text, "huge" a
// hundred megabytes, "later" that it is to be asked in ten minutes, by a date. It prints where it listens.

$server = stream_socket_server('tcp://127.0.0.1:0') ?: exit(1);
echo stream_socket_get_name($server, false), "\n";
pcntl_async_signals(true);
pcntl_signal(SIGCHLD, SIG_IGN);
while (true) {
    $client = @stream_socket_accept($server, 60);
    if ($client === false || pcntl_fork() !== 0) {
        continue;
    }
    $habit = explode(' ', (string) fgets($client))[1] ?? '';
    $length = 0;
    while (($line = fgets($client)) !== false && trim($line) !== '') {
        $length = preg_match('/^content-length:\s*(\d+)/i', $line, $found) === 1 ? (int) $found[1] : $length;
    }
    stream_get_contents($client, $length);
    $answer = static function (string $status, string $body, string $headers = '') use ($client): void {
        $length = strlen($body);
        @fwrite($client, "HTTP/1.1 {$status}\r\nContent-Length: {$length}\r\nConnection: close\r\n{$headers}\r\n{$body}");
    };
    match ($habit) {
        '/slow' => (static function () use ($answer): void {
            usleep(700_000);
            $answer('200 OK', '{}');
        })(),
        '/bytes' => $answer('200 OK', "x\xff\xfey"),
        '/huge' => $answer('200 OK', str_repeat('x', 100_000_000)),
        '/huge_bytes' => $answer('200 OK', str_repeat("\xf0\x9f\x8c\xbf", 400_000)),
        '/later' => $answer('503 Busy', '', 'Retry-After: '.gmdate('D, d M Y H:i:s \G\M\T', time() + 600)."\r\n"),
        default => $answer('200 OK', '{"ok": true}'),
    };
    exit(0);
}
