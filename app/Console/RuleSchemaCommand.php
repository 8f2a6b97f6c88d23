<?php

declare(strict_types=1);

namespace App\Console;

use App\Evidence\Setup\SetupFile;
use App\Evidence\Setup\SetupParts;
use App\Store\Rules\RuleSchema;
use Illuminate\Console\Command;

/** Writes the JSON Schemas of rule files and of setups from what the kinds and the parts say of themselves. */
final class RuleSchemaCommand extends Command
{
    protected $signature = 'ledger:rule-schema';

    protected $description = 'Write docs/schema';

    public function handle(): int
    {
        file_put_contents(base_path(RuleSchema::PATH), RuleSchema::made());
        foreach (['rule-draft', 'setup'] as $written) {
            copy(resource_path("schema/{$written}.json"), base_path("docs/schema/{$written}.schema.json"));
        }
        foreach (SetupParts::all() as $part) {
            file_put_contents(base_path('docs/schema/'.SetupFile::name($part)), SetupFile::published($part));
        }

        return self::SUCCESS;
    }
}
