<?php

declare(strict_types=1);

namespace App\Console;

use App\Models\People\Person;
use Illuminate\Console\Command;

/** Makes a personal API token for a script. */
final class TokenCommand extends Command
{
    protected $signature = 'ledger:token {person : handle or e-mail address} {name : what the token is for}';

    protected $description = 'Make a personal API token';

    public function handle(): int
    {
        $person = Person::query()->where('handle', $this->argument('person'))->orWhere('email', $this->argument('person'))->first();
        if ($person === null || ! $person->active) {
            $this->error("Nobody who may sign in is called {$this->argument('person')}.");

            return self::FAILURE;
        }
        $this->line($person->createToken((string) $this->argument('name'))->plainTextToken);

        return self::SUCCESS;
    }
}
