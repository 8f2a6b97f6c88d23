<?php

declare(strict_types=1);

/*
 * One of several processes that answer the same slips at the same time by their links, each with a number of its own, and post the same
 * to a hook.   php answer_slip.php TOKENS HOOK NUMBER   where tokens have commas between them
 */

use App\Models\Inbound\Hook;
use App\Store\DomainError;
use App\Store\RefusedFor;
use App\Work\Inbound\WebhookIngest;
use Illuminate\Contracts\Console\Kernel as Console;
use Illuminate\Contracts\Http\Kernel;
use Illuminate\Http\Request;
use StandardWebhooks\Webhook;

require __DIR__.'/../../../vendor/autoload.php';
$app = require __DIR__.'/../../../bootstrap/app.php';
$app->make(Console::class)->bootstrap();
[, $tokens, $hook, $number] = $argv;
foreach (explode(',', $tokens) as $nth => $token) {
    $app->forgetScopedInstances();
    // Where too many are in the way at once, somebody is told so, and presses again.
    for ($tries = 0, $status = 409; $status === 409 && $tries < 20; $tries++) {
        $request = Request::create("/slip/{$token}", 'POST', ['answers' => [(string) ($number + 1)]]);
        $status = $app->make(Kernel::class)->handle($request)->getStatusCode();
    }
    $status === 303 || fwrite(STDERR, "slip: {$status}");
    $text = (string) json_encode(['name' => "Posted {$nth}"]);
    $known = Hook::query()->findOrFail((int) $hook);
    for ($tries = 0, $isTaken = false; ! $isTaken; $tries++) {
        $now = time();
        try {
            $app->make(WebhookIngest::class)->take($known, $text, [
                'webhook-id' => "key-{$nth}", 'webhook-timestamp' => (string) $now,
                'webhook-signature' => (new Webhook($known->secret))->sign("key-{$nth}", $now, $text),
            ]);
            $isTaken = true;
        } catch (Throwable $thrown) {
            // Another system sends again what could not be taken for the moment; whatever else went wrong has to be seen.
            if (! $thrown instanceof DomainError || $thrown->for !== RefusedFor::Busy || $tries >= 20) {
                fwrite(STDERR, "hook: {$thrown->getMessage()}");
                exit(1);
            }
        }
    }
}
