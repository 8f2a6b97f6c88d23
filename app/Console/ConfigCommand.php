<?php

declare(strict_types=1);

namespace App\Console;

use App\Evidence\Setup\SetupFolder;
use App\Evidence\Setup\SetupPlan;
use App\Evidence\Setup\Setups;
use App\Models\People\Person;
use App\Store\DomainError;
use Illuminate\Console\Command;
use VividLedger\Rights\Role;

/** The setup of the company as one folder of JSON files: written, compared, or brought in, all of it or nothing. */
final class ConfigCommand extends Command
{
    protected $signature = 'ledger:config {do : export, plan or apply} {folder}
        {--as= : handle of the administrator in whose name it is applied} {--despite : put rules in force though proofs do not hold}';

    protected $description = 'Export the setup, say what another one would change, or apply it';

    public function handle(Setups $setups): int
    {
        $folder = rtrim((string) $this->argument('folder'), '/');
        try {
            return match ($this->argument('do')) {
                'export' => $this->export($setups, $folder),
                'plan' => $this->told($setups->plan(SetupFolder::read($folder), $this->by(), (bool) $this->option('despite'))),
                'apply' => $this->told($setups->apply(SetupFolder::read($folder), $this->by(), (bool) $this->option('despite')), true),
                default => throw new DomainError('unknown', 'Say export, plan or apply.'),
            };
        } catch (DomainError $refused) {
            $this->error($refused->getMessage());
            $this->problems($refused->problems);

            return self::FAILURE;
        }
    }

    private function export(Setups $setups, string $folder): int
    {
        $texts = $setups->export();
        SetupFolder::write($folder, $texts);
        $this->line(count($texts)." files in {$folder}");

        return self::SUCCESS;
    }

    private function told(SetupPlan $plan, bool $done = false): int
    {
        foreach ($plan->changes as $change) {
            $this->line(($change->isNew ? 'New      ' : 'Changes  ')."{$change->path}: {$change->name}");
            foreach ($change->said as $line) {
                $this->line("           {$line}");
            }
        }
        foreach ($plan->besides as $one) {
            $this->line("Stays    {$one}");
        }
        $this->line("{$plan->same} files say what is so already, ".count($plan->changes).($done ? ' were applied.'
            : ' would change something.'));
        $this->problems($plan->problems);

        return $plan->problems === [] ? self::SUCCESS : self::FAILURE;
    }

    /** @param  list<array{at: string, code: string, message: string}>  $problems */
    private function problems(array $problems): void
    {
        foreach ($problems as $problem) {
            $this->error("{$problem['at']}: {$problem['message']}");
        }
    }

    private function by(): int
    {
        $handle = (string) $this->option('as');
        $person = Person::query()->where('active', true)->where('role', Role::ADMINISTRATOR)->orderBy('id')
            ->when($handle !== '', static fn ($people) => $people->where('handle', $handle))->first();

        return $person->id ?? throw new DomainError('unknown_person', $handle === '' ? 'There is no administrator to do it in the name of.'
            : "There is no administrator ‘{$handle}’.");
    }
}
