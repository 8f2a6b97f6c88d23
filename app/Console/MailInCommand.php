<?php

declare(strict_types=1);

namespace App\Console;

use App\StandIn\MailIn;
use App\Store\Refused;
use Illuminate\Console\Command;

/** Takes in a letter from a pipe, as a mail server hands it over. */
final class MailInCommand extends Command
{
    protected $signature = 'ledger:mail-in';

    protected $description = 'Take in a letter from standard input (RFC 5322), as a mail server pipes it';

    public function handle(MailIn $in): int
    {
        try {
            $isOurs = $in->take((string) stream_get_contents(STDIN));
        } catch (Refused $refused) {
            $this->components->error($refused->getMessage());

            return self::FAILURE;
        }
        $this->components->info($isOurs ? 'It answers a letter of ours, and is taken.' : 'It answers no letter of ours.');

        return self::SUCCESS;
    }
}
