<?php

declare(strict_types=1);

namespace Tests\App\Support;

use App\Models\Person as Row;
use VividLedger\Engine\Engine;
use VividLedger\Engine\Facts;
use VividLedger\Engine\Firing;
use VividLedger\Engine\FixedClock;
use VividLedger\Engine\RuleIndex;
use VividLedger\People\Directory;
use VividLedger\People\Person;
use VividLedger\Record\Change;
use VividLedger\Record\Display;
use VividLedger\Record\Record;
use VividLedger\Record\Value;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Rule\Rule;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Schema;

/** What the application keeps, kept in arrays instead: the same engine with facts from memory. */
final class PaperLedger implements Directory, Facts
{
    /** @var list<array{string, ?int, ?string}> title, person and due date of every task given */
    public array $tasks = [];

    /** @var list<Rule> */
    private array $rules = [];

    /** @var array<string, Record> */
    private array $records = [];

    /** @var array<string, true> */
    private array $guards = [];

    /** @var array<int, Person> */
    private array $people = [];

    private readonly \DateTimeZone $zone;

    public function __construct(private readonly Schema $schema, private readonly int $fallback)
    {
        $this->zone = new \DateTimeZone('Europe/Berlin');
        foreach (Row::query()->get() as $row) {
            $this->people[$row->id] = new Person($row->id, $row->handle, $row->name, $row->manager_id, $row->active);
        }
    }

    public function keep(Record $record): void
    {
        $this->records["{$record->type}:{$record->id}"] = $record;
    }

    /** @param  array<string, mixed>  $file */
    public function inForce(int $id, array $file): void
    {
        $this->rules[] = (new RuleReader($this->schema, $this, $this->zone))->read($file, $id, 1)->rule ?? throw new \LogicException('Not sound.');
    }

    /**
     * @param  array<string, string|int|bool|null>  $values
     * @return array{record: Record, entries: list<array<string, mixed>>}
     */
    public function save(?Record $before, int $id, array $values, int $actor, \DateTimeImmutable $at): array
    {
        $type = $this->schema->types['ticket'];
        $stamp = Value::instantText($at);
        $all = [];
        foreach ($type->fields as $name => $field) {
            $all[$name] = array_key_exists($name, $values) ? Value::of($field, $values[$name]) : ($before === null ? ($field->type === FieldType::Tick ? false : null) : $before->values[$name]);
        }
        $stamps = ['updated_at' => $stamp, 'updated_by' => $actor] + ($before === null ? ['created_at' => $stamp, 'created_by' => $actor] : []);
        $all = array_replace($all, $stamps);
        $after = new Record('ticket', $id, ($before === null ? 0 : $before->version) + 1, $all);
        $change = new Change($before, $after, $actor, $at);
        $decision = (new Engine($this->schema, $this->zone))->decide($change, new RuleIndex($this->rules), $this, new FixedClock($at));
        $entries = [['kind' => $before === null ? 'created' : 'changed', 'rule' => null, 'cause' => null, 'version' => $after->version, 'data' => ['changes' => $this->changes($before, $after)]]];
        foreach ($decision->steps as $step) {
            $fires = $step instanceof Firing;
            $rule = $fires ? $step->rule : $step->chain[count($step->chain) - 1];
            $data = $fires
                ? ['why' => json_decode((string) json_encode($step->why), true), 'did' => $step->performance->outcomes, 'changes' => $this->changes($step->before, $step->after)]
                : ['chain' => array_map(static fn (Rule $rule): string => $rule->name, $step->chain), 'cameRound' => $step->cameRound];
            $entries[] = ['kind' => $fires ? 'fired' : 'stopped', 'rule' => $rule->name, 'cause' => $step->parent === null ? 0 : $step->parent + 1, 'version' => $after->version, 'data' => $data];
            if ($fires) {
                $this->guards["{$rule->id}:{$id}:{$step->guardKey}"] = true;
                foreach ($step->performance->tasks as $task) {
                    $this->tasks[] = [$task->title, $task->person?->id, $task->due === null ? null : Value::instantText($task->due)];
                }
            }
        }

        return ['record' => $decision->after ?? $after, 'entries' => $entries];
    }

    public function record(string $type, int $id): ?Record
    {
        return $this->records["{$type}:{$id}"] ?? null;
    }

    public function title(string $type, int $id): ?string
    {
        $record = $this->record($type, $id);

        return $record === null ? null : (string) $record->value($this->schema->types[$type]->title);
    }

    public function person(int $id): ?Person
    {
        return $this->people[$id] ?? null;
    }

    public function personByHandle(string $handle): ?Person
    {
        return array_values(array_filter($this->people, static fn (Person $person): bool => $person->handle === $handle))[0] ?? null;
    }

    public function fallbackPerson(): ?Person
    {
        return $this->people[$this->fallback];
    }

    public function guardHeld(int $ruleId, string $type, int $recordId, string $key): bool
    {
        return isset($this->guards["{$ruleId}:{$recordId}:{$key}"]);
    }

    /** @return list<array<string, string>> */
    private function changes(?Record $before, Record $after): array
    {
        $display = new Display($this, $this->zone);
        $changes = [];
        foreach ($this->schema->types['ticket']->ownFields() as $field) {
            [$was, $is] = [$before?->value($field->name), $after->value($field->name)];
            if ($was !== $is && ($before !== null || $is !== false)) {
                $changes[] = ['field' => $field->name, 'label' => $field->label, 'before' => $display->of($field, $was), 'after' => $display->of($field, $is)];
            }
        }

        return $changes;
    }
}
