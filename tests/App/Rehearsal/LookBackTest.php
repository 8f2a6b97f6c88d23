<?php

declare(strict_types=1);

namespace Tests\App\Rehearsal;

use App\Evidence\Rehearsal\LookBacks;
use App\Models\Columns;
use App\Store\Actor;
use App\Store\Records\RecordHistory;
use App\Store\Records\SaveRecord;
use App\Store\Records\Timelines;
use App\Store\Types\SchemaStore;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\TimeTestCase;
use Tests\Core\Support\Stories;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;

/** Looking back over what was recorded finds the firings that were, and what another page would have made of it. */
final class LookBackTest extends TimeTestCase
{
    /** As many are in force in a story, and answer each other. */
    private const RULES = 3;

    public function test_a_rule_that_was_in_force_is_found_to_have_fired_when_it_did(): void
    {
        $fired = 0;
        for ($seed = 301; $seed <= 345; $seed++) {
            DB::beginTransaction();
            $fired += $this->story($seed);
            DB::rollBack();
        }
        self::assertGreaterThan(60, $fired);
    }

    private function story(int $seed): int
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
        $files = [];
        for ($count = 1; $count <= self::RULES; $count++) {
            do {
                $file = $stories->rule("Rule {$seed}.{$count}");
            } while (preg_match('/contact|"refuse"|"related"|"total"/', (string) json_encode($file)) === 1);
            $files[$this->inForce($file)] = $file;
        }
        $save = $this->app->make(SaveRecord::class);
        $type = $schema->types['ticket'];
        $actor = new Actor($this->person('ines.okafor')->id);
        $fields = array_values(array_filter(
            $type->ownFields(),
            static fn (Field $field): bool => in_array(
                $field->type,
                [FieldType::Choice, FieldType::Tick, FieldType::Date, FieldType::Money],
                true,
            ),
        ));
        foreach ([1, 2] as $count) {
            $record = null;
            for ($step = 0; $step < 8; $step++) {
                $this->clockAt((new \DateTimeImmutable(self::NOW))->modify('+'.($step * 30 + $count).' hours')->format('c'));
                $values = $record === null ? [
                    'subject' => "Ticket {$count}", 'customer' => $stories->one($customers), 'priority' => 'normal', 'status' => 'open',
                ] : [];
                for ($more = $stories->random->getInt(1, 3); $more > 0; $more--) {
                    $field = $stories->one($fields);
                    $values[$field->name] = $stories->value($field);
                }
                $saved = $record === null ? $save->create($type, $values, $actor) : $save->change(
                    $type,
                    $record->id,
                    $record->version,
                    $values,
                    $actor,
                );
                $record = Columns::record($type, DB::selectOne('SELECT * FROM records_ticket WHERE id = ?', [$saved->record->id]));
            }
        }
        $this->sameAtEveryEntry();
        $total = 0;
        foreach ($files as $rule => $file) {
            $were = DB::select(
                "SELECT record_id, cause_id, at FROM entries WHERE kind = 'fired' AND rule_id = ? ORDER BY record_id, id",
                [$rule],
            );
            $read = $this->app->make(RuleReader::class)->read($file, $rule, 1)->rule;
            self::assertNotNull($read);
            $pieces = iterator_to_array(
                $this->app->make(LookBacks::class)->over($read, new \DateTimeImmutable('2020-01-01'), new \DateTimeImmutable('2030-01-01')),
                false,
            );
            $last = $pieces[count($pieces) - 1];
            $found = array_map(static fn (array $fire): string => "{$fire['record']} {$fire['entry']}", $last['list']);
            sort($found);
            $expected = array_map(static fn (object $row): string => "{$row->record_id} {$row->cause_id}", $were);
            sort($expected);
            self::assertSame($expected, $found, "story {$seed}: ".json_encode($file));
            self::assertSame([0, 0, count($were)], [$last['appear'], $last['vanish'], array_sum((array) $last['weeks'])]);
            $total += count($were);
        }

        return $total;
    }

    public function test_a_rule_that_watches_related_records_is_found_to_have_fired_when_it_did(): void
    {
        $fired = [];
        for ($seed = 401; $seed <= 440; $seed++) {
            DB::beginTransaction();
            $about = $seed % 2 === 0 ? 'ticket' : 'customer';
            $fired[$about] = ($fired[$about] ?? 0) + $this->relatedStory($seed, $about);
            DB::rollBack();
        }
        self::assertGreaterThan(25, min($fired), json_encode($fired));
    }

    private function relatedStory(int $seed, string $about): int
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
        $random = $stories->random;
        $watched = $about === 'ticket' ? 'customer' : 'ticket';
        $when = [
            'kind' => 'related', 'related' => $about === 'ticket' ? 'customer' : 'ticket.customer',
            'happening' => $stories->one(['changed', 'created_or_changed', 'created']),
        ];
        $when['happening'] = $about === 'ticket' ? 'changed' : $when['happening'];
        $fields = array_values(array_filter(
            $schema->types[$watched]->ownFields(),
            static fn (Field $field): bool => in_array($field->type, [FieldType::Choice, FieldType::Tick], true),
        ));
        $when += $when['happening'] === 'changed' ? ['fields' => [$stories->one($fields)->name]] : [];
        do {
            $conditions = $stories->condition($schema->types[$about], 2);
        } while (preg_match('/contact|agreement|quote|visit/', (string) json_encode($conditions)) === 1);
        $file = ['name' => "Rule {$seed}", 'on' => $about, 'when' => $when, 'onlyIf' => [
            'kind' => 'all', 'of' => $random->getInt(0, 2) > 0 ? [] : [$conditions],
        ],
            'fires' => $stories->one([['kind' => 'every_time'], ['kind' => 'once_per_record'], ['kind' => 'so_many_times', 'times' => 2],
                ['kind' => 'once_in_period', 'period' => ['amount' => 40, 'unit' => 'hour']]]),
            'lines' => [['kind' => 'comment', 'text' => 'Seen']]];
        $rule = $this->inForce($file);
        $save = $this->app->make(SaveRecord::class);
        $actor = new Actor($this->person('ines.okafor')->id);
        $tickets = [];
        for ($step = 0; $step < 24; $step++) {
            $this->clockAt((new \DateTimeImmutable(self::NOW))->modify('+'.($step * 9).' hours')->format('c'));
            $isTicket = $step < 3 || $random->getInt(0, 2) > 0;
            $type = $schema->types[$isTicket ? 'ticket' : 'customer'];
            $id = $isTicket ? ($step < 3 ? null : $stories->one($tickets)) : $stories->one($customers);
            $values = $id === null ? [
                'subject' => "Ticket {$step}", 'customer' => $stories->one($customers), 'priority' => 'normal', 'status' => 'open',
            ] : ($isTicket && $random->getInt(0, 4) === 0 ? ['customer' => $stories->one($customers)] : []);
            foreach (array_filter($type->ownFields(), static fn (Field $field): bool => in_array(
                $field->type,
                [FieldType::Choice, FieldType::Tick, FieldType::Date, FieldType::Money],
                true,
            )
                && $field->formula === null) as $field) {
                if ($random->getInt(0, 3) === 0 && ! isset($values[$field->name])) {
                    $values[$field->name] = $stories->value($field);
                }
            }
            $saved = $id === null ? $save->create($type, $values, $actor) : $save->change(
                $type,
                $id,
                (int) DB::table("records_{$type->name}")->where('id', $id)->value('version'),
                $values,
                $actor,
            );
            $tickets = $id === null ? [...$tickets, $saved->record->id] : $tickets;
        }
        $were = array_map(
            static fn (object $row): string => "{$row->record_id} {$row->cause_id}",
            DB::select("SELECT record_id, cause_id FROM entries WHERE kind = 'fired' AND rule_id = ?", [$rule]),
        );
        sort($were);
        $last = $this->lookBack(['file' => $file, 'rule' => $rule]);
        $last = $last[count($last) - 1];
        $found = array_map(static fn (array $fire): string => "{$fire['record']} {$fire['entry']}", $last['list']);
        sort($found);
        self::assertSame($were, $found, "story {$seed}: ".json_encode($file));
        self::assertSame([0, 0, count($were)], [$last['appear'], $last['vanish'], array_sum((array) $last['weeks'])], "story {$seed}");
        // A draft that watches the record itself stands beside the page in force all the same.
        $own = $this->lookBack([
            'file' => ['when' => ['kind' => 'created_or_changed'], 'fires' => ['kind' => 'every_time']] + $file, 'rule' => $rule,
        ]);
        self::assertSame(count($were), end($own)['otherFires'], "story {$seed}");

        return count($were);
    }

    /** A record's whole past read at once says what its history says, entry by entry. */
    private function sameAtEveryEntry(): void
    {
        $timelines = $this->app->make(Timelines::class);
        $history = $this->app->make(RecordHistory::class);
        $type = $this->app->make(SchemaStore::class)->schema()->types['ticket'];
        $stamps = array_flip(['updated_at', 'updated_by']);
        foreach (DB::select("SELECT DISTINCT record_id FROM entries WHERE record_type = 'ticket'") as $row) {
            foreach (DB::select("SELECT id FROM entries WHERE record_type = 'ticket' ORDER BY id") as $entry) {
                $one = $timelines->record('ticket', (int) $row->record_id, (int) $entry->id);
                $other = $history->recordAfter($type, (int) $row->record_id, (int) $entry->id);
                self::assertSame($other === null, $one === null, "ticket {$row->record_id} at entry {$entry->id}");
                self::assertSame(
                    array_diff_key($other->values ?? [], $stamps),
                    array_diff_key($one->values ?? [], $stamps),
                    "ticket {$row->record_id} at entry {$entry->id}",
                );
            }
        }
    }

    public function test_another_page_is_shown_beside_the_one_in_force(): void
    {
        $file = ['onlyIf' => [
            'kind' => 'all', 'of' => [['kind' => 'one_of', 'field' => 'priority', 'values' => ['urgent', 'high']]],
        ], 'fires' => ['kind' => 'becomes_true'],
            'lines' => [['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Look', 'due' => null],
                ['kind' => 'set_fields', 'set' => [['field' => 'review',
                    'to' => ['kind' => 'value', 'value' => 'needed']]]]]] + self::CHASE;
        unset($file['until']);
        $rule = $this->inForce($file);
        $ids = [];
        foreach (['urgent', 'high', 'low', 'urgent'] as $week => $priority) {
            $this->clockAt((new \DateTimeImmutable(self::NOW))->modify("+{$week} weeks")->format('c'));
            $ids[] = $this->ticket(['priority' => $priority, 'owner' => $this->person('ines.okafor')->id])['record']['id'];
        }
        $before = DB::table('entries')->count();
        $pieces = $this->lookBack([
            'file' => [
                'onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'one_of', 'field' => 'priority', 'values' => ['urgent', 'low']]]],
            ] + $file,
            'rule' => $rule,
        ]);
        $last = end($pieces);
        self::assertTrue($last['final']);
        self::assertSame([3, 3, 1, 1], [$last['fires'], $last['otherFires'], $last['appear'], $last['vanish']]);
        self::assertSame([1, 1, 1], array_values($last['weeks']));
        self::assertSame(
            [$ids[3] => 'both', $ids[2] => 'appears', $ids[1] => 'vanishes', $ids[0] => 'both'],
            array_column($last['list'], 'how', 'record'),
        );
        self::assertSame(['Ines Okafor' => 3], $last['tasks']);
        self::assertSame($before, DB::table('entries')->count(), 'looking back touches nothing');
        // The record as it stood then can be opened.
        $this->becomes($ids[0], ['priority' => 'low']);
        $then = array_values(array_filter($last['list'], static fn (array $fire): bool => $fire['record'] === $ids[0]))[0];
        self::assertSame(
            'urgent',
            $this->as('ines.okafor', 'GET', "records/ticket/{$ids[0]}/then?entry={$then['entry']}")->assertOk()->json('values.priority'),
        );
        // A span leaves out what lies before it.
        $span = $this->lookBack([
            'file' => $file, 'rule' => $rule, 'from' => (new \DateTimeImmutable(self::NOW))->modify('+1 day')->format('c'),
        ]);
        self::assertSame(2, end($span)['fires']);
    }

    public function test_what_the_guard_held_back_and_what_clashed_is_counted(): void
    {
        $urgent = ['kind' => 'changed', 'fields' => ['priority']];
        $set = static fn (string $value): array => [
            'lines' => [['kind' => 'set_fields', 'set' => [['field' => 'review', 'to' => ['kind' => 'value', 'value' => $value]]]]],
        ];
        $this->inForce(
            [
                'name' => 'Needed', 'when' => $urgent, 'onlyIf' => ['kind' => 'all', 'of' => []], 'fires' => ['kind' => 'every_time'],
            ] + $set('needed') + self::CHASE,
        );
        $ticket = $this->ticket(['priority' => 'low'])['record']['id'];
        $this->becomes($ticket, ['priority' => 'high']);
        $this->becomes($ticket, ['priority' => 'low']);
        $file = [
            'name' => 'Once', 'when' => $urgent, 'onlyIf' => ['kind' => 'all', 'of' => []], 'fires' => ['kind' => 'once_per_record'],
        ] + $set('done') + self::CHASE;
        $pieces = $this->lookBack(['file' => $file]);
        $last = end($pieces);
        self::assertSame([1, 1, ['Needed' => 1], false], [$last['fires'], $last['heldBack'], $last['clashes'], $last['hasPage']]);
        $this->as(
            'ines.okafor',
            'POST',
            'look-back',
            [
                'file' => [
                    'when' => ['kind' => 'related', 'related' => 'customer', 'happening' => 'changed', 'fields' => []],
                    'fires' => ['kind' => 'once_per_record', 'again' => ['kind' => 'is', 'field' => 'status', 'value' => 'closed']],
                ] + $file,
            ],
        )->assertStatus(422);
    }

    public function test_every_silence_is_found_again(): void
    {
        $fired = [];
        foreach (['change', 'activity', 'reply', 'value'] as $sort) {
            for ($seed = 1; $seed <= 3; $seed++) {
                DB::beginTransaction();
                $fired[$sort] = ($fired[$sort] ?? 0) + $this->silence($sort, $seed);
                DB::rollBack();
            }
        }
        self::assertGreaterThan(3, min($fired), json_encode($fired));
    }

    private function silence(string $sort, int $seed): int
    {
        $this->forgetEverything();
        $this->clockAt('2026-11-24T08:00:00Z');
        $random = new \Random\Randomizer(new \Random\Engine\Mt19937($seed));
        // A rule that writes to the contact now and then, and one that sets fields, as neither breaks a silence but by what it writes.
        $this->inForce(['name' => 'Writes', 'on' => 'ticket', 'when' => [
            'kind' => 'changed', 'fields' => ['priority'],
        ], 'fires' => ['kind' => 'every_time'], 'lines' => [
            ['kind' => 'send_message', 'to' => [['kind' => 'field', 'path' => 'contact']], 'subject' => 'Seen', 'body' => '<p>Hello</p>'],
            [
                'kind' => 'set_fields', 'set' => [['field' => 'review', 'to' => ['kind' => 'value', 'value' => 'needed']]],
                'at' => ['kind' => 'after', 'amount' => 7, 'unit' => 'hour'],
            ],
        ]]);
        $file = ['name' => "Quiet: {$sort}", 'on' => 'ticket', 'when' => [
            'kind' => 'quiet', 'of' => $sort, 'amount' => 20, 'unit' => 'hour',
        ] + ($sort === 'value' ? ['field' => 'status', 'value' => 'waiting'] : []), 'fires' => ['kind' => 'every_time'],
            'lines' => [['kind' => 'comment', 'text' => 'Quiet'],
                ['kind' => 'set_fields', 'set' => [['field' => 'topic', 'to' => ['kind' => 'clear']]]]]];
        $rule = $this->inForce($file);
        $ticket = $this->written(['status' => 'open', 'priority' => 'normal'])['id'];
        $at = new \DateTimeImmutable('2026-11-24T08:00:00Z');
        for ($step = 0; $step < 9; $step++) {
            $at = $at->modify('+'.$random->getInt(2, 30).' hours');
            $this->passTo($at->format('c'));
            match ($random->getInt(0, 4)) {
                0 => $this->as('ines.okafor', 'POST', "records/ticket/{$ticket}/comments", ['text' => 'Hm'])->assertCreated(),
                1 => $this->becomes($ticket, ['priority' => ['low', 'high', 'urgent'][$step % 3]]),
                2 => $this->becomes($ticket, ['status' => 'waiting']),
                3 => $this->becomes($ticket, ['status' => 'open']),
                default => $this->becomes($ticket, ['cost' => (string) $step]),
            };
        }
        $until = $at->modify('+40 hours');
        $this->passTo($until->format('c'));
        $were = array_map(
            static fn (string $moment): string => str_replace(' ', 'T', $moment).'Z',
            DB::table('entries')->where('kind', 'fired')->where('rule_id', $rule)->orderByDesc('at')->pluck('at')->all(),
        );
        $pieces = $this->lookBack(['file' => $file, 'rule' => $rule]);
        self::assertSame(
            $were,
            array_column($pieces[count($pieces) - 1]['list'], 'at'),
            "{$sort}, seed {$seed}: ".json_encode(
                DB::table('entries')->where('record_type', 'ticket')->get(['id', 'kind', 'at', 'rule_id']),
            ),
        );

        return count($were);
    }

    public function test_time_is_looked_back_on_as_well(): void
    {
        $ticket = $this->ticket(['due' => '2026-12-01'])['record']['id'];
        $this->clockAt('2026-11-28T08:00:00Z');
        $this->becomes($ticket, ['due' => '2026-12-10']);
        $this->clockAt('2026-12-31T08:00:00Z');
        $file = [
            'when' => ['kind' => 'date', 'field' => 'due', 'amount' => 0, 'unit' => 'day', 'time' => '09:00'],
            'onlyIf' => ['kind' => 'all', 'of' => []], 'fires' => ['kind' => 'every_time'],
            'lines' => [['kind' => 'comment', 'text' => 'Due']],
        ] + self::CHASE;
        unset($file['until']);
        $at = fn (array $when): array => array_column(
            ($pieces = $this->lookBack(['file' => ['when' => $when] + $file]))[count($pieces) - 1]['list'],
            'at',
        );
        self::assertSame(['2026-12-10T08:00:00Z'], $at($file['when']), 'only at the date it had come to');
        self::assertSame(
            ['2026-12-01T08:00:00Z', '2026-11-27T08:40:00Z'],
            $at(['kind' => 'quiet', 'of' => 'change', 'amount' => 3, 'unit' => 'day']),
        );
        self::assertCount(5, $at(['kind' => 'timetable', 'rrule' => 'FREQ=WEEKLY;BYDAY=MO', 'time' => '08:00', 'from' => '2026-11-01']));
    }

    /**
     * @param  array<string, mixed>  $ask
     * @return list<array<string, mixed>> the pieces of the answer
     */
    private function lookBack(array $ask): array
    {
        $answer = $this->as('ines.okafor', 'POST', 'look-back', $ask);
        self::assertInstanceOf(\Symfony\Component\HttpFoundation\StreamedResponse::class, $answer->baseResponse);

        return array_map(
            static fn (string $line): array => json_decode($line, true, 512, JSON_THROW_ON_ERROR),
            explode("\n", trim($answer->streamedContent())),
        );
    }
}
