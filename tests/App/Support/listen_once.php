<?php

declare(strict_types=1);

// Takes one request, prints it as JSON, and answers with a number.

use App\StandIn\HttpReply;
use App\StandIn\HttpRequest;
use App\StandIn\HttpServer;

require dirname(__DIR__, 3).'/vendor/autoload.php';
$isDone = false;
$server = new HttpServer('127.0.0.1:0', static function (HttpRequest $request) use (&$isDone): HttpReply {
    echo json_encode(['headers' => $request->headers, 'body' => $request->body]), "\nEND\n";
    $isDone = true;

    return HttpReply::json(200, ['number' => 'X-1']);
});
echo $server->address(), "\n";
while (! $isDone) {
    $server->serve(0.2);
}
