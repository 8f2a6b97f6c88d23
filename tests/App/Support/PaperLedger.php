<?php

declare(strict_types=1);

namespace Tests\App\Support;

use App\Models\People\Person as Row;
use Tests\Core\Support\Memory;
use VividLedger\Engine\Engine;
use VividLedger\House\Person;
use VividLedger\Record\Record;
use VividLedger\Record\Value;
use VividLedger\Rehearse\PaperBook;
use VividLedger\Rehearse\PaperEntry;
use VividLedger\Rehearse\Play;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Rule\Rule;
use VividLedger\Schema\Schema;

/** A rehearsal beside the application: the same rules and records, on paper only. */
final class PaperLedger extends Memory
{
    /** @var list<array{string, ?int, ?string}> title, person and due date of every task given */
    public array $tasks = [];

    /** @var list<string> subject, text and recipients of every message */
    public array $messages = [];

    /** @var list<Rule> */
    private array $rules = [];

    private ?Play $play = null;

    private readonly \DateTimeZone $zone;

    public function __construct(private readonly Schema $schema, int $fallback)
    {
        parent::__construct($schema);
        $this->fallback = $fallback;
        $this->zone = new \DateTimeZone('Europe/Berlin');
        foreach (Row::query()->orderBy('id')->get() as $row) {
            $this->people[$row->id] = new Person(
                $row->id, $row->handle, $row->name, $row->manager_id, $row->active, $row->team, $row->email, $row->phone,
                role: $row->role,
            );
        }
    }

    public function keep(Record $record): void
    {
        $this->records["{$record->type}:{$record->id}"] = $record;
    }

    /** @param  array<string, mixed>  $file */
    public function inForce(int $id, array $file): void
    {
        $this->rules[] = (new RuleReader($this->schema, $this, $this->zone))->read($file, $id, 1)
            ->rule ?? throw new \LogicException('Not sound.');
    }

    /**
     * @param  array<string, string|int|bool|null>  $values
     * @return array{record: Record, entries: list<array<string, mixed>>}
     */
    public function save(?Record $before, int $id, array $values, int $actor, \DateTimeImmutable $at): array
    {
        $this->play($at);
        $from = count($this->play()->entries);
        $type = $this->schema->types['ticket'];
        $given = [];
        foreach ($values as $name => $value) {
            $given[$name] = Value::of($type->fields[$name], $value);
        }
        $record = $this->play()->save($before, $id, 'ticket', $given, $actor);

        return ['record' => $record, 'entries' => $this->told($from)];
    }

    /**
     * Everything that falls due up to a moment, at its time.
     *
     * @return list<array<string, mixed>> the entries
     */
    public function passTo(\DateTimeImmutable $until): array
    {
        $from = count($this->play()->entries);
        $this->play()->passTo($until);

        return $this->told($from);
    }

    /** The rehearsal, its clock set to a moment. */
    public function play(?\DateTimeImmutable $at = null): Play
    {
        $play = $this->play ??= new Play(
            $this->schema,
            $this->zone,
            new Engine($this->schema, $this->zone),
            new PaperBook($this->rules),
            $this,
            $at ?? $this->now,
        );
        $play->paper->now = $this->now = $at ?? $play->paper->now;

        return $play;
    }

    /** @return list<array<string, mixed>> */
    private function told(int $from): array
    {
        return array_map(function (PaperEntry $entry) use ($from): array {
            foreach ($entry->tasks as $task) {
                $this->tasks[] = [
                    $task->given->title, $task->given->person?->id,
                    $task->given->due === null ? null : Value::instantText($task->given->due),
                ];
            }
            foreach ($entry->messages as $message) {
                $this->messages[] = "{$message->subject}|{$message->text}|{$message->toText()}";
            }
            $told = $entry->told;

            return [
                'kind' => $told->kind, 'rule' => $told->rule?->name, 'cause' => $entry->cause === null ? null
                    : $entry->cause - 1 - $from, 'record' => "{$told->record->type}:{$told->record->id}",
                'version' => $told->record->version, 'data' => json_decode((string) json_encode($told->data), true),
            ];
        }, array_slice($this->play()->entries, $from));
    }
}
