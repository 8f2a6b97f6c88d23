<?php

declare(strict_types=1);

namespace Tests\App\Support;

use App\Models\Person as Row;
use Tests\Core\Support\Memory;
use VividLedger\Engine\Deed;
use VividLedger\Engine\Engine;
use VividLedger\Engine\Firing;
use VividLedger\Engine\FixedClock;
use VividLedger\Engine\LineDone;
use VividLedger\Engine\Postponed;
use VividLedger\Engine\Retimed;
use VividLedger\Engine\RuleIndex;
use VividLedger\Engine\Step;
use VividLedger\Engine\Stopped;
use VividLedger\Engine\Struck;
use VividLedger\Engine\TooLate;
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
final class PaperLedger extends Memory
{
    /** @var list<array{string, ?int, ?string}> title, person and due date of every task given */
    public array $tasks = [];

    /** @var list<string> subject, text and recipients of every message */
    public array $messages = [];

    /** @var list<Rule> */
    private array $rules = [];

    private readonly \DateTimeZone $zone;

    public function __construct(private readonly Schema $schema, int $fallback)
    {
        parent::__construct($schema);
        $this->fallback = $fallback;
        $this->zone = new \DateTimeZone('Europe/Berlin');
        foreach (Row::query()->orderBy('id')->get() as $row) {
            $this->people[$row->id] = new Person($row->id, $row->handle, $row->name, $row->manager_id, $row->active, $row->team, $row->email, $row->phone);
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
        $this->now = $at;
        $type = $this->schema->types['ticket'];
        $stamp = Value::instantText($at);
        $all = [];
        foreach ($type->fields as $name => $field) {
            $all[$name] = array_key_exists($name, $values) ? Value::of($field, $values[$name]) : ($before === null ? ($field->type === FieldType::Tick ? false : null) : $before->values[$name]);
        }
        $stamps = ['updated_at' => $stamp, 'updated_by' => $actor] + ($before === null ? ['created_at' => $stamp, 'created_by' => $actor] : []);
        $after = new Record('ticket', $id, ($before === null ? 0 : $before->version) + 1, $type->withComputed(array_replace($all, $stamps)));
        $decision = (new Engine($this->schema, $this->zone))->decide(new Change($before, $after, $actor, $at), new RuleIndex($this->rules), $this, new FixedClock($at));
        $entries = [['kind' => $before === null ? 'created' : 'changed', 'rule' => null, 'cause' => null, 'record' => "ticket:{$id}", 'version' => $after->version, 'data' => ['changes' => $this->changes(new Change($before, $after, $actor, $at))]]];
        $this->takeIn($decision, $entries);
        $this->keep($decision->after ?? $after);

        return ['record' => $decision->after ?? $after, 'entries' => $entries];
    }

    /**
     * Everything that falls due up to a moment, at its time.
     *
     * @return list<array<string, mixed>> the entries
     */
    public function passTo(\DateTimeImmutable $until): array
    {
        $entries = [];
        while (($line = $this->nextDue($until)) !== null) {
            $this->now = max($this->now, $line->due ?? $until);
            $rules = new RuleIndex($this->rules);
            $rule = $rules->page($line->run->rule, $line->run->page) ?? throw new \LogicException('The page is gone.');
            $record = $this->record($line->run->type, $line->run->record) ?? throw new \LogicException('The record is gone.');
            $decision = (new Engine($this->schema, $this->zone))->fallDue($line, $rule, $record, $rules, $this, new FixedClock($this->now));
            $this->takeIn($decision, $entries);
            $this->keep($decision->after ?? $record);
        }
        $this->now = $until;

        return $entries;
    }

    /** @param  list<array<string, mixed>>  $entries */
    private function takeIn(\VividLedger\Engine\Decision $decision, array &$entries): void
    {
        foreach ($decision->steps as $step) {
            $entries[] = $this->entry($step);
            $this->use($step);
            if ($step instanceof Deed) {
                foreach ($step->performance->tasks as $task) {
                    $this->tasks[] = [$task->title, $task->person?->id, $task->due === null ? null : Value::instantText($task->due)];
                }
                foreach ($step->performance->messages as $message) {
                    $this->messages[] = "{$message->subject}|{$message->text}|{$message->toText()}";
                }
            }
        }
        $this->turns = array_replace($this->turns, $decision->turns);
        foreach ($decision->others as [, $other]) {
            $this->keep($other);
        }
    }

    /** @return array<string, mixed> */
    private function entry(Step $step): array
    {
        $cause = $step->parent() === null ? 0 : $step->parent() + 1;
        [$kind, $rule, $record, $data] = match (true) {
            $step instanceof Firing => ['fired', $step->rule->name, $step->after, [
                'why' => json_decode((string) json_encode($step->why), true), 'did' => json_decode((string) json_encode($step->performance->outcomes), true),
                'changes' => $this->changes(new Change($step->before, $step->after, null, $this->now)),
            ]],
            $step instanceof LineDone => ['line', $step->rule->name, $step->after, []],
            $step instanceof Struck => ['struck', null, $step->record, ['because' => $step->because]],
            $step instanceof Retimed => ['retimed', null, $step->record, ['because' => $step->because]],
            $step instanceof Postponed => ['postponed', null, $step->record, ['because' => $step->because]],
            $step instanceof TooLate => ['too_late', $step->rule->name, $step->record, ['because' => $step->because]],
            $step instanceof Stopped => ['stopped', $step->chain[count($step->chain) - 1]->name, $step->record, ['chain' => array_map(static fn (Rule $rule): string => $rule->name, $step->chain), 'cameRound' => $step->cameRound]],
            $step instanceof \VividLedger\Engine\ReadyAgain => ['ready_again', $step->rule->name, $step->record, []],
            $step instanceof \VividLedger\Engine\Effect && $step->change->event !== null => ['comment', null, $step->change->record(), ['text' => $step->change->event->text]],
            default => [$step->change->before === null ? 'created' : 'changed', null, $step->change->record(), ['changes' => $this->changes($step->change)]],
        };

        return ['kind' => $kind, 'rule' => $rule, 'cause' => $cause, 'record' => "{$record->type}:{$record->id}", 'version' => $record->version, 'data' => $data];
    }

    /** @return list<array<string, string>> */
    private function changes(Change $change): array
    {
        $display = new Display($this, $this->zone);
        $changes = [];
        foreach ($this->schema->types[$change->record()->type]->ownFields() as $field) {
            [$was, $is] = [$change->before?->value($field->name), $change->after?->value($field->name)];
            if ($was !== $is && ($change->before !== null || $is !== false)) {
                $changes[] = ['field' => $field->name, 'label' => $field->label, 'before' => $display->of($field, $was), 'after' => $display->of($field, $is)];
            }
        }

        return $changes;
    }
}
