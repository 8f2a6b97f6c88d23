<?php

declare(strict_types=1);

namespace Tests\App\Rehearsal;

use App\Models\Columns;
use App\Store\Actor;
use App\Store\Records\SaveRecord;
use App\Store\Types\SchemaStore;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\AppTestCase;
use Tests\App\Support\PaperLedger;
use Tests\Core\Support\Stories;
use VividLedger\Record\Record;
use VividLedger\Rehearse\PaperTask;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Schema;

/**
 * The same random stories through the application with its database and through the engine with facts in memory: after
 * every save both have the same record, the same ledger line for line, and the same tasks.
 */
final class TwoWorldsTest extends AppTestCase
{
    private const STORIES = 20;

    private const RULES = 9;

    private const SAVES = 14;

    private int $lapsed = 0;

    public function test_the_application_and_the_engine_in_memory_tell_the_same_story(): void
    {
        $fired = 0;
        $stopped = 0;
        for ($seed = 1; $seed <= self::STORIES; $seed++) {
            DB::beginTransaction();
            [$entries, $stops] = $this->story($seed);
            $fired += $entries;
            $stopped += $stops;
            DB::rollBack();
        }
        self::assertGreaterThan(self::STORIES * 5, $fired, 'The stories have to make rules fire, or they show nothing.');
        self::assertGreaterThan(2, $this->lapsed, 'Some tasks have to lose their point.');
        self::assertGreaterThan(0, $stopped, 'At least one chain has to come round.');
    }

    /** @return array{int, int} how many rules fired, and how many chains were stopped */
    private function story(int $seed): array
    {
        // What a process remembers of rules belongs to the ones that were rolled back.
        $this->forgetEverything();
        $this->clockAt(self::NOW);
        $schema = $this->app->make(SchemaStore::class)->schema();
        $customers = [$this->customer('One', 'basic')['id'], $this->customer('Two', 'full_care')['id']];
        $stories = new Stories(
            $seed,
            $schema,
            ['ines.okafor', 'edda.marlow'],
            ['customer' => $customers, 'contact' => [0], 'quote' => [0]],
        );
        $paper = new PaperLedger($schema, $this->person('tomas.weld')->id);
        foreach ($customers as $id) {
            $paper->keep(Columns::record($schema->types['customer'], DB::selectOne('SELECT * FROM records_customer WHERE id = ?', [$id])));
        }
        for ($count = 1; $count <= self::RULES; $count++) {
            // Sales contacts are left out: a story about tickets needs only their customers.
            do {
                $file = $stories->rule("Rule {$count}");
            } while (str_contains((string) json_encode($file), 'contact'));
            $paper->inForce($this->inForce($file), $file);
        }
        $save = $this->app->make(SaveRecord::class);
        $type = $schema->types['ticket'];
        $actor = new Actor($this->person('ines.okafor')->id);
        $record = null;
        for ($count = 0; $count < self::SAVES; $count++) {
            $at = (new \DateTimeImmutable(self::NOW))->modify("+{$count} hours");
            $this->clockAt($at->format('c'));
            $from = (int) DB::table('entries')->max('id');
            $values = $this->values($stories, $schema, $record);
            $saved = $record === null ? $save->create($type, $values, $actor) : $save->change(
                $type,
                $record->id,
                $record->version,
                $values,
                $actor,
            );
            if ($saved->entryId === null) {
                continue;
            }
            $onPaper = $paper->save($record, $saved->record->id, $values, (int) $actor->personId, $at);

            self::assertSame($onPaper['record']->values, $saved->record->values, "story {$seed}, save {$count}: the record");
            self::assertEquals($onPaper['entries'], $this->entries($from), "story {$seed}, save {$count}: the ledger");
            $record = Columns::record($type, DB::selectOne('SELECT * FROM records_ticket WHERE id = ?', [$saved->record->id]));
            self::assertSame($saved->record->values, $record->values, 'what the save returns is what is kept');
        }
        $tasks = DB::table('tasks')->orderBy('id')->get(['title', 'assignee_id', 'due_at'])->map(
            static fn (object $task): array => [$task->title, $task->assignee_id, Columns::iso($task->due_at)],
        )->all();
        self::assertSame($paper->tasks, $tasks, "story {$seed}: the tasks");
        $lapsed = DB::table('tasks')->orderBy('id')->pluck('status')->map(static fn (string $status): bool => $status === 'lapsed')->all();
        self::assertSame(
            array_map(static fn (PaperTask $task): bool => $task->isLapsed, $paper->play()->paper->runs->tasks),
            $lapsed,
            "story {$seed}: which tasks have lapsed",
        );
        $this->lapsed += count(array_filter($lapsed));
        $messages = DB::table('messages')->orderBy('id')->get()->map(
            static fn (object $row): string => "{$row->subject}|{$row->text}|".implode(
                ', ',
                array_column(json_decode($row->recipients, true)['to'], 'name'),
            ),
        )->all();
        self::assertSame($paper->messages, $messages, "story {$seed}: the messages");
        foreach ($customers as $id) {
            self::assertEquals(
                $paper->play()->paper->record('customer', $id),
                Columns::record($schema->types['customer'], DB::selectOne('SELECT * FROM records_customer WHERE id = ?', [$id])),
                "story {$seed}: the customer",
            );
        }

        return [DB::table('entries')->where('kind', 'fired')->count(), DB::table('entries')->where('kind', 'stopped')->count()];
    }

    /** @return array<string, string|int|bool|null> what a person changes: a few fields, mostly choices */
    private function values(Stories $stories, Schema $schema, ?Record $record): array
    {
        $type = $schema->types['ticket'];
        if ($record === null) {
            $values = [];
            foreach ($type->ownFields() as $field) {
                $values[$field->name] = $this->plain($stories, $field);
            }

            return ['subject' => 'A ticket', 'customer' => $values['customer']] + $values;
        }
        $fields = array_values(array_filter(
            $type->ownFields(),
            static fn (Field $field): bool => in_array($field->type, [FieldType::Choice, FieldType::Tick], true),
        ));
        $values = [];
        for ($count = $stories->random->getInt(1, 3); $count > 0; $count--) {
            $field = $stories->one($fields);
            $values[$field->name] = $this->plain($stories, $field);
        }

        return $values;
    }

    private function plain(Stories $stories, Field $field): string|int|bool|null
    {
        $value = $field->target === 'contact' ? null : $stories->value($field);

        return is_string($value) && trim($value) === '' ? null : $value;
    }

    /** @return list<array<string, mixed>> the entries since one, without what only a database gives */
    private function entries(int $from): array
    {
        $rows = DB::select('SELECT e.*, r.name FROM entries e LEFT JOIN rules r ON r.id = e.rule_id WHERE e.id > ? ORDER BY e.id', [$from]);
        $places = array_flip(array_map(static fn (object $row): int => (int) $row->id, $rows));

        return array_map(static fn (object $row): array => [
            'kind' => $row->kind, 'rule' => $row->name, 'cause' => $row->cause_id === null ? null
                : $places[(int) $row->cause_id], 'record' => "{$row->record_type}:{$row->record_id}", 'version' => (int) $row->version,
            'data' => json_decode($row->data, true, 512, JSON_THROW_ON_ERROR),
        ], $rows);
    }
}
