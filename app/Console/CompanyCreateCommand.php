<?php

declare(strict_types=1);

namespace App\Console;

use App\Models\Outbound\LinkKind;
use App\Store\Access\PersonLinks;
use App\Store\DomainError;
use App\Store\Setup\NewCompany;
use Illuminate\Console\Command;

/** The same as the page that opens a company, for scripts. */
final class CompanyCreateCommand extends Command
{
    protected $signature = 'company:create {name : of the company} {person : name of the first administrator} {email : their address}
        {--zone=UTC : time zone} {--from=09:00 : when work begins} {--to=17:00 : when it ends} {--set=* : sales, service, contracts}';

    protected $description = 'Open a company, and print the link by which its first administrator chooses a password';

    public function handle(NewCompany $company): int
    {
        try {
            $person = $company->open([
                'company' => (string) $this->argument('name'), 'timeZone' => (string) $this->option('zone'),
                'from' => (string) $this->option('from'), 'to' => (string) $this->option('to'), 'days' => [1, 2, 3, 4, 5],
                'sets' => array_map(strval(...), array_values((array) $this->option('set'))), 'name' => (string) $this->argument('person'),
                'email' => (string) $this->argument('email'),
            ]);
        } catch (DomainError $refused) {
            $this->error($refused->getMessage());

            return self::FAILURE;
        }
        $this->line(rtrim((string) config('app.url'), '/').'/welcome/'.PersonLinks::make(LinkKind::Invite, $person->id));

        return self::SUCCESS;
    }
}
