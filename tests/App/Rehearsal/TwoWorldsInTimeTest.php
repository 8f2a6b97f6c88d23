<?php

declare(strict_types=1);

namespace Tests\App\Rehearsal;

use App\Models\Columns;
use App\Store\Actor;
use App\Store\Records\SaveRecord;
use App\Store\Types\SchemaStore;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\PaperLedger;
use Tests\App\Support\TimeTestCase;
use Tests\Core\Support\Stories;
use VividLedger\Record\Record;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;

/**
 * Random rules with time in them, through the application with its workers and through the engine with facts in memory: both
 * pencil in, move, strike out and do the same lines at the same moments, and tell the same ledger.
 */
final class TwoWorldsInTimeTest extends TimeTestCase
{
    private const STORIES = 12;

    private const RULES = 6;

    private const STEPS = 9;

    public function test_both_worlds_live_through_the_same_time(): void
    {
        $kinds = [];
        for ($seed = 101; $seed <= 100 + self::STORIES; $seed++) {
            DB::beginTransaction();
            $this->story($seed);
            foreach (DB::table('entries')->pluck('kind')->countBy() as $kind => $count) {
                $kinds[$kind] = ($kinds[$kind] ?? 0) + $count;
            }
            DB::rollBack();
        }
        foreach (['fired' => 40, 'line' => 40, 'struck' => 10, 'retimed' => 1, 'too_late' => 1] as $kind => $least) {
            self::assertGreaterThanOrEqual(
                $least,
                $kinds[$kind] ?? 0,
                "The stories have to bring about enough of: {$kind} ".json_encode($kinds),
            );
        }
    }

    private function story(int $seed): void
    {
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
            do {
                $file = $stories->inTime($stories->rule("Rule {$count}"));
            } while (preg_match('/contact|"refuse"|"reply"|"related"/', (string) json_encode($file)) === 1);
            // Where each save is a chance to fire, there is more to live through.
            $file['when'] = $stories->one([['kind' => 'created_or_changed'], ['kind' => 'changed', 'fields' => ['status']]]);
            $paper->inForce($this->inForce($file), $file);
        }
        $save = $this->app->make(SaveRecord::class);
        $type = $schema->types['ticket'];
        $actor = new Actor($this->person('ines.okafor')->id);
        $record = null;
        $at = new \DateTimeImmutable(self::NOW);
        for ($step = 0; $step < self::STEPS; $step++) {
            $where = "story {$seed}, step {$step}";
            $from = (int) DB::table('entries')->max('id');
            $values = ['due' => '2026-12-'.$stories->random->getInt(10, 28)];
            foreach ($record === null ? $type->ownFields()
                : array_filter($type->ownFields(),
                    static fn (Field $field): bool => in_array($field->type, [FieldType::Choice, FieldType::Tick], true)) as $field) {
                if ($field->target === null && ($record === null || $stories->random->getInt(1, 3) === 1)) {
                    $value = $stories->value($field);
                    $values[$field->name] = is_string($value) && trim($value) === '' ? null : $value;
                }
            }
            $values = $record === null ? ['subject' => 'A ticket', 'customer' => $customers[0]] + $values : $values;
            $saved = $record === null ? $save->create($type, $values, $actor) : $save->change(
                $type,
                $record->id,
                $record->version,
                $values,
                $actor,
            );
            $told = $saved->entryId === null ? ['record' => $record, 'entries' => []] : $paper->save(
                $record,
                $saved->record->id,
                $values,
                $actor->personId ?? 0,
                $at,
            );
            self::assertSame($this->outline($told['entries']), $this->ledger($from), "{$where}: the save");
            // What is due at once is done at once.
            $from = (int) DB::table('entries')->max('id');
            $this->workNow();
            $entries = $paper->passTo($at);
            $at = $at->modify('+'.$stories->random->getInt(1, 150).' hours');
            // Sometimes nobody was there to do it in time.
            if ($stories->random->getInt(1, 4) === 1) {
                $this->clockAt($at->format('c'));
                $paper->play($at);
                $this->workNow();
            }
            $this->passTo($at->format('c'));
            array_push($entries, ...$paper->passTo($at));
            self::assertSame($this->outline($entries), $this->ledger($from), "{$where}: what fell due");
            $record = Columns::record($type, DB::selectOne('SELECT * FROM records_ticket WHERE id = ?', [$saved->record->id]));
            self::assertEquals($paper->play()->paper->record('ticket', $record->id), $record, "{$where}: the record");
            self::assertSame($this->pencilled($paper, $record), $this->pencilledIn($record), "{$where}: what is pencilled in");
        }
        self::assertSame(count($paper->tasks), DB::table('tasks')->count(), "story {$seed}: the tasks");
        self::assertSame(count($paper->messages), DB::table('messages')->count(), "story {$seed}: the messages");
    }

    /**
     * @param  list<array<string, mixed>>  $entries
     * @return list<string>
     */
    private function outline(array $entries): array
    {
        return array_map(
            static fn (array $entry): string => "{$entry['kind']} {$entry['rule']} {$entry['record']} v{$entry['version']} "
                .json_encode($entry['data']),
            $entries,
        );
    }

    /** @return list<string> */
    private function ledger(int $from): array
    {
        return array_map(static fn (object $row): string => "{$row->kind} {$row->name} {$row->record_type}:{$row->record_id} "
            ."v{$row->version} ".json_encode(json_decode($row->data, true)),
            DB::select("SELECT e.*, r.name FROM entries e LEFT JOIN rules r ON r.id = e.rule_id WHERE e.id > ? AND e.kind <> 'task_due' "
                .'ORDER BY e.id', [$from]));
    }

    /** @return list<string> */
    private function pencilled(PaperLedger $paper, Record $record): array
    {
        $lines = [];
        foreach ($paper->play()->paper->inPlay('ticket', $record->id) as $run) {
            foreach ($run->lines as $line) {
                $lines[] = "{$run->rule} {$line->place}/{$line->turn} "
                    .($line->due?->setTimezone(new \DateTimeZone('UTC'))->format('Y-m-d H:i:s') ?? 'waits');
            }
        }
        sort($lines);

        return $lines;
    }

    /** @return list<string> */
    private function pencilledIn(Record $record): array
    {
        $lines = array_map(
            static fn (object $row): string => "{$row->rule_id} {$row->place}/{$row->turn} ".($row->due_at ?? 'waits'),
            DB::select(
                "SELECT * FROM scheduled_lines WHERE record_type = 'ticket' AND record_id = ? AND kind <> 'task_due' AND status = "
                    ."'pencilled'",
                [$record->id],
            ),
        );
        sort($lines);

        return $lines;
    }
}
