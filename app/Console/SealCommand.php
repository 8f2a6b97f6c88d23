<?php

declare(strict_types=1);

namespace App\Console;

use App\Models\Ledger\Entry;
use App\Store\Ledger\Sealer;
use Illuminate\Console\Command;

/** Seals all there is, for whoever wants a checkpoint now; the clock process does it by itself, a little later. */
final class SealCommand extends Command
{
    protected $signature = 'ledger:seal';

    protected $description = 'Seal every entry of the ledger now, while nobody writes';

    public function handle(Sealer $sealer): int
    {
        $upto = (int) Entry::query()->max('id');
        $sealed = 0;
        while (($now = $sealer->seal($upto)) > 0) {
            $sealed += $now;
        }
        $this->line("{$sealed} entries sealed.");

        return self::SUCCESS;
    }
}
