<?php

declare(strict_types=1);

use App\Models\Outbound\StoredMessage;
use App\Work\Outbound\Mailer;

// Sends one message, handed over in the environment, by the postman's own way; the test that starts it plays the server.

require dirname(__DIR__, 3).'/vendor/autoload.php';
$app = require dirname(__DIR__, 3).'/bootstrap/app.php';
$app->make(Illuminate\Contracts\Console\Kernel::class)->bootstrap();
config(['ledger.mail.dsn' => (string) getenv('MAIL_DSN')]);
(new Mailer(static function (): void {
}))->send((new StoredMessage)->newFromBuilder(json_decode((string) getenv('MESSAGE'), true, 32, JSON_THROW_ON_ERROR)));
