<?php

declare(strict_types=1);

namespace App\Console;

use App\Store\Ledger\Verifier;
use Illuminate\Console\Command;

/** Tells whether the ledger is as it was sealed. */
final class VerifyCommand extends Command
{
    protected $signature = 'ledger:verify {checkpoint?* : kept elsewhere, as this command printed it: number:seal}';

    protected $description = 'Find entries that were changed, taken away or slipped in';

    public function handle(Verifier $verifier): int
    {
        $checkpoints = [];
        foreach ((array) $this->argument('checkpoint') as $given) {
            if (preg_match('/^(\d{1,18}):([0-9a-f]{64})$/Di', (string) $given, $found) !== 1) {
                $this->error("‘{$given}’ is no checkpoint. It is a number, a colon and 64 hexadecimal digits.");

                return self::INVALID;
            }
            $checkpoints[(int) $found[1]] = $found[2];
        }
        $begun = microtime(true);
        $isWell = $verifier->verify($checkpoints);
        foreach ($verifier->findings as $finding) {
            $this->error($finding);
        }
        $seconds = max(0.001, microtime(true) - $begun);
        $this->line(number_format($verifier->looked).' entries looked at, '.number_format($verifier->looked / $seconds).' a second.');
        if ($isWell) {
            $this->line('All is as it was sealed. Keep this elsewhere, and give it to this command again:');
            $this->line($verifier->checkpoint);
        }

        return $isWell ? self::SUCCESS : self::FAILURE;
    }
}
