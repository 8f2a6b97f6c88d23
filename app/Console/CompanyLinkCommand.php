<?php

declare(strict_types=1);

namespace App\Console;

use App\Store\Setup\NewCompany;
use Illuminate\Console\Command;

/** For whoever runs a server that has no company yet. */
final class CompanyLinkCommand extends Command
{
    protected $signature = 'company:link';

    protected $description = 'Print the link by which somebody opens the company on this server';

    public function handle(): int
    {
        if (NewCompany::isOpen()) {
            $this->error('There is a company here already.');

            return self::FAILURE;
        }
        $this->line(rtrim((string) config('app.url'), '/').'/welcome/'.NewCompany::link());

        return self::SUCCESS;
    }
}
