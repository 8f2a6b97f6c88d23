<?php

declare(strict_types=1);

namespace Database\Seeders;

use Illuminate\Database\Seeder;

/** Loads the demo company, Larkmoss, as "php artisan demo:load" does; where it is there already, nothing happens. */
final class DatabaseSeeder extends Seeder
{
    public function run(): void
    {
        $this->command->call('demo:load');
    }
}
