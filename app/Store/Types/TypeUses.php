<?php

declare(strict_types=1);

namespace App\Store\Types;

use App\Models\RecordTypeDefinition;
use App\Models\StoredRule;
use App\Store\Company;
use App\Store\Definition;
use VividLedger\House\Directory;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Schema\Schema;

/**
 * Which rules name a field: those that read well with it and no longer read without it. So every kind of rule tells by itself what it
 * needs, and nothing here knows any of them.
 */
final readonly class TypeUses
{
    public function __construct(private Directory $directory, private Company $company)
    {
    }

    /** @return list<string> names of rules, by what they are called */
    public function of(string $type, string $field): array
    {
        $with = $without = [];
        foreach (RecordTypeDefinition::query()->orderBy('position')->get() as $row) {
            $definition = $row->definition;
            $with[$row->name] = Definition::read($row->name, $definition);
            if ($row->name === $type) {
                unset($definition['fields'][$field]);
            }
            $without[$row->name] = Definition::read($row->name, $definition);
        }
        $users = [];
        foreach (StoredRule::query()->with('currentPage')->orderBy('name')->get() as $rule) {
            foreach (array_filter([$rule->draft, $rule->currentPage?->file]) as $file) {
                if ($this->problems($file, $with) < $this->problems($file, $without)) {
                    $users[$rule->id] = $rule->name;
                }
            }
        }

        return array_values($users);
    }

    /**
     * @param  array<mixed>  $file
     * @param  array<string, \VividLedger\Schema\RecordType>  $types
     */
    private function problems(array $file, array $types): int
    {
        return count((new RuleReader(new Schema($types), $this->directory, $this->company->zone()))->read($file)->problems);
    }
}
