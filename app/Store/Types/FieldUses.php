<?php

declare(strict_types=1);

namespace App\Store\Types;

use App\Models\Access\StoredRole;
use App\Models\Library\StoredCondition;
use App\Models\Library\StoredLetter;
use App\Models\Library\StoredRoute;
use App\Models\Rules\StoredRule;
use App\Models\Slips\SlipForm;
use App\Models\Types\RecordTypeDefinition;
use App\Store\Setup\Company;
use VividLedger\Condition\ConditionReader;
use VividLedger\House\Directory;
use VividLedger\Rule\Letter\Letter;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Schema\RecordType;
use VividLedger\Schema\Schema;
use VividLedger\Shape\Context;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Part;
use VividLedger\SignOff\StepsSlot;
use VividLedger\Slip\QuestionsSlot;

/** All that names a field, found as rules are: by reading it with the field and without. */
final readonly class FieldUses
{
    public function __construct(private Directory $directory, private Company $company)
    {
    }

    /** @return list<array{string, string, string}> kind, name, and the page where it is changed */
    public function of(string $type, string $field): array
    {
        [$with, $without] = [$this->schema($type, null), $this->schema($type, $field)];
        $uses = [];
        foreach ($this->texts() as [$kind, $name, $path, $read]) {
            if ($read($with) < $read($without)) {
                $uses[] = [$kind, $name, $path];
            }
        }
        $row = RecordTypeDefinition::query()->find($type);
        if (in_array($field, $row->definition['columns'] ?? [], true)) {
            $uses[] = ['list', (string) $row?->definition['plural'], "/records/{$type}"];
        }
        foreach (StoredRole::query()->orderBy('position')->get() as $role) {
            if (isset($role->role()->fields[$type][$field])) {
                $uses[] = ['role', $role->role()->label, '/setup/roles'];
            }
        }

        return $uses;
    }

    /** @return iterable<array{string, string, string, \Closure(Schema): int}> each with how many problems it has under a schema */
    private function texts(): iterable
    {
        foreach (StoredRule::query()->with('currentPage')->orderBy('name')->get() as $rule) {
            $files = array_filter([$rule->draft, $rule->currentPage?->file]);
            yield ['rule', $rule->name, "/rules/{$rule->id}", fn (Schema $schema): int => array_sum(array_map(
                fn (array $file): int => count((new RuleReader($schema, $this->directory, $this->company->zone()))->read($file)->problems),
                $files,
            ))];
        }
        foreach (StoredLetter::query()->with('currentVersion')->orderBy('name')->get() as $letter) {
            $version = $letter->currentVersion;
            yield ['letter', $letter->name, "/setup/letters/{$letter->id}", fn (Schema $schema): int => $this->problems(
                $schema, $letter->record_type, static fn (Context $context): mixed => Letter::read(
                    $context, new Node($version->subject, '/subject'), new Node($version->body, '/body'), true,
                ),
            )];
        }
        foreach (SlipForm::query()->with('currentVersion')->orderBy('name')->get() as $slip) {
            $version = $slip->currentVersion;
            yield ['slip', $slip->name, '/setup/slips', fn (Schema $schema): int => $this->problems(
                $schema, $slip->record_type, static function (Context $context) use ($version): void {
                    Letter::read($context, new Node($version->subject, '/subject'), new Node($version->body, '/body'), true);
                    $context->row(Part::Line, new Node($version->asks, '/asks'));
                    (new QuestionsSlot)->read($context, new Node($version->asks, '/asks'), new Filled);
                },
            )];
        }
        foreach (StoredRoute::query()->orderBy('name')->get() as $route) {
            yield ['route', $route->name, '/setup/routes', fn (Schema $schema): int => $this->problems(
                $schema, $route->record_type, static function (Context $context) use ($route): void {
                    $context->row(Part::Line, new Node($route->steps, '/steps'));
                    (new StepsSlot)->read($context, new Node($route->steps, '/steps'), new Filled);
                },
            )];
        }
        foreach (StoredCondition::query()->orderBy('name')->get() as $named) {
            yield ['condition', $named->name, '/setup/conditions', fn (Schema $schema): int => $this->problems(
                $schema, $named->record_type,
                static fn (Context $context): mixed => ConditionReader::read($context, new Node($named->file, '/onlyIf')),
            )];
        }
    }

    /** @param  \Closure(Context): mixed  $read */
    private function problems(Schema $schema, string $type, \Closure $read): int
    {
        $on = $schema->type($type);
        if ($on === null) {
            return 0;
        }
        $context = new Context($schema, $this->directory, $on, $this->company->zone());
        $read($context);

        return count($context->sheet->problems);
    }

    private function schema(string $of, ?string $without): Schema
    {
        $types = [];
        foreach (RecordTypeDefinition::query()->orderBy('position')->get() as $row) {
            $definition = $row->definition;
            if ($row->name === $of && $without !== null) {
                unset($definition['fields'][$without]);
            }
            $types[$row->name] = self::read($row->name, $definition);
        }

        return new Schema($types);
    }

    /** @param  array<string, mixed>  $definition */
    private static function read(string $name, array $definition): RecordType
    {
        return Definition::read($name, $definition);
    }
}
