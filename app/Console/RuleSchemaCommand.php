<?php

declare(strict_types=1);

namespace App\Console;

use App\Store\RuleSchema;
use Illuminate\Console\Command;

/** Writes the JSON Schema of rule files from what the kinds say of themselves. */
final class RuleSchemaCommand extends Command
{
    protected $signature = 'ledger:rule-schema';

    protected $description = 'Write docs/schema/rule.schema.json';

    public function handle(): int
    {
        file_put_contents(base_path(RuleSchema::PATH), RuleSchema::made());

        return self::SUCCESS;
    }
}
