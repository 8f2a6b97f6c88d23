<?php

declare(strict_types=1);

// A mail server with a habit: "hangs-up" takes each letter whole and drops the line without an answer; "slow" takes its time over
// each answer, as many seconds as the second argument says. It prints its port, and "letter" for each that it takes.

[, $habit, $seconds] = $argv + [1 => 'slow', 2 => '0'];
$server = stream_socket_server('tcp://127.0.0.1:0') ?: exit(1);
echo substr((string) strrchr((string) stream_socket_get_name($server, false), ':'), 1), "\n";
while ($client = @stream_socket_accept($server, 60)) {
    $answer = static function (string $line) use ($client, $seconds): void {
        usleep((int) (1_000_000 * (float) $seconds));
        @fwrite($client, "{$line}\r\n");
    };
    $answer('220 odd');
    while (($line = fgets($client)) !== false) {
        if (! str_starts_with($line, 'DATA')) {
            $answer(str_starts_with($line, 'QUIT') ? '221 bye' : '250 ok');

            continue;
        }
        $answer('354 go on');
        while (($line = fgets($client)) !== false && $line !== ".\r\n");
        echo "letter\n";
        if ($habit === 'hangs-up') {
            break;
        }
        $answer('250 taken');
    }
    fclose($client);
}
