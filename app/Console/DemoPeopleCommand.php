<?php

declare(strict_types=1);

namespace App\Console;

use App\Demo\Demo;
use App\Models\People\Person;
use App\Work\Outbound\BackOfficeDoor;
use Illuminate\Console\Command;

/** Prints the demo log-ins. */
final class DemoPeopleCommand extends Command
{
    protected $signature = 'demo:people';

    protected $description = 'Print the demo log-ins';

    public function handle(): int
    {
        $company = Demo::company();
        foreach ($company['log_ins'] as $handle) {
            $person = Person::query()->where('handle', $handle)->first();
            if ($person !== null) {
                $this->line(sprintf('  %-14s %-36s password %s', $person->role, $person->email, $company['password']));
            }
        }

        if (BackOfficeDoor::isOpen()) {
            $this->line(sprintf("\n  %-14s %-36s password %s", 'back office', BackOfficeDoor::url(), BackOfficeDoor::secret()));
        }

        return self::SUCCESS;
    }
}
