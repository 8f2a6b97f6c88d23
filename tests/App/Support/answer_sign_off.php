<?php

declare(strict_types=1);

/*
 * One of several processes in which people answer the same sign-off at the same time, some with yes and some with no. Who comes
 * too late is refused.   php answer_sign_off.php SIGN_OFF PERSON ...
 */

use App\Store\DomainError;
use App\Store\SignOffs\SignOffService;
use Illuminate\Contracts\Console\Kernel;
use VividLedger\SignOff\Answer;

require __DIR__.'/../../../vendor/autoload.php';
$app = require __DIR__.'/../../../bootstrap/app.php';
$app->make(Kernel::class)->bootstrap();
set_exception_handler(static function (Throwable $wrong): void {
    fwrite(STDERR, $wrong::class.": {$wrong->getMessage()}");
    exit(1);
});

[, $signOff] = $argv;
$people = array_slice($argv, 2);
$mine = getmypid();
foreach ($people as $nth => $person) {
    try {
        $answer = ($mine + $nth) % 2 === 0 ? Answer::Yes : Answer::No;
        $app->make(SignOffService::class)->answer((int) $signOff, (int) $person, $answer, "Process {$mine}");
    } catch (DomainError $refused) {
        if (! in_array($refused->reason, ['ended', 'not_asked'], true)) {
            throw $refused;
        }
    }
}
