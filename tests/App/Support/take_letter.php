<?php

declare(strict_types=1);

/** A mail server that takes one letter and prints it, behind its port. */

use App\StandIn\SmtpServer;

require __DIR__.'/../../../vendor/autoload.php';

$taken = null;
$server = new SmtpServer('127.0.0.1:0', static function (string $raw) use (&$taken): void {
    $taken = $raw;
});
echo (int) substr((string) strrchr($server->address(), ':'), 1)."\n";
for ($until = microtime(true) + 20; $taken === null && microtime(true) < $until;) {
    $server->serve(0.1);
}
$server->serve(0.1);
echo $taken;
