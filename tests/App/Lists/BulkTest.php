<?php

declare(strict_types=1);

namespace Tests\App\Lists;

use App\Store\Actor;
use App\Store\DomainError;
use App\Store\Records\SavedRow;
use App\Store\Records\SaveMany;
use App\Store\Records\SaveRecord;
use App\Store\Types\SchemaStore;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\AppTestCase;
use Tests\Core\Support\Stories;
use VividLedger\Schema\RecordType;

/** Many records changed at once come out exactly as if each had been changed alone, one after the other. */
final class BulkTest extends AppTestCase
{
    private const RECORDS = 12;

    public function test_at_once_and_one_after_the_other_end_the_same(): void
    {
        $fired = 0;
        for ($seed = 1; $seed <= 12; $seed++) {
            $outcomes = [];
            foreach ([true, false] as $atOnce) {
                DB::beginTransaction();
                $this->forgetEverything();
                $this->clockAt(self::NOW);
                $outcomes[] = $this->story($seed, $atOnce);
                DB::rollBack();
            }
            [$together, $alone] = $outcomes;
            self::assertSame($alone['results'], $together['results'], "story {$seed}: what each was told");
            self::assertEquals($alone['tickets'], $together['tickets'], "story {$seed}: the tickets");
            self::assertEquals($alone['customers'], $together['customers'], "story {$seed}: the customers");
            self::assertEquals($alone['entries'], $together['entries'], "story {$seed}: the ledger");
            self::assertEquals($alone['tasks'], $together['tasks'], "story {$seed}: the tasks");
            self::assertEquals($alone['guards'], $together['guards'], "story {$seed}: the guards");
            $fired += count(array_filter($together['entries'], static fn (array $entry): bool => $entry[0] === 'fired'));
        }
        self::assertGreaterThan(60, $fired, 'The stories have to make rules fire, or they show nothing.');
    }

    public function test_what_is_refused_for_one_record_is_said_for_it_and_the_others_go_on(): void
    {
        $this->inForce([
            'name' => 'No dear ones', 'on' => 'ticket', 'when' => ['kind' => 'changed'],
            'onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'over', 'field' => 'cost', 'value' => '100']]],
            'fires' => ['kind' => 'every_time'], 'lines' => [
                ['kind' => 'refuse', 'field' => 'status', 'message' => '{number} costs too much.'],
            ],
        ]);
        $tickets = array_map(fn (string $cost): array => $this->ticket(['cost' => $cost])['record'], ['50', '500', '60']);
        $ids = array_column($tickets, 'id');
        $results = $this->app->make(SaveMany::class)->change(
            $this->type('ticket'),
            [...$ids, 999999],
            ['status' => 'closed'],
            new Actor(1),
        );

        self::assertSame(
            [$ids[0] => '', $ids[1] => "{$tickets[1]['number']} costs too much.", $ids[2] => '', 999999 => 'There is no such ticket.'],
            array_map(static fn (SavedRow $row): string => $row->said, $results),
        );
        self::assertSame(['closed', 'open', 'closed'], DB::table('records_ticket')->orderBy('id')->pluck('status')->all());
        self::assertSame(1, DB::table('entries')->where('kind', 'refused')->count());
    }

    public function test_what_changes_nothing_writes_nothing(): void
    {
        $ids = array_map(fn (): int => $this->ticket()['record']['id'], [1, 2]);
        $entries = DB::table('entries')->count();
        $this->app->make(SaveMany::class)->change($this->type('ticket'), $ids, ['status' => 'open'], new Actor(1));

        self::assertSame($entries, DB::table('entries')->count());
        self::assertSame([1, 1], DB::table('records_ticket')->pluck('version')->map(intval(...))->all());
    }

    /** A rule that counts siblings sees those changed before it in the same go. */
    public function test_counts_see_what_was_changed_before_in_the_same_go(): void
    {
        $this->inForce([
            'name' => 'Third closed', 'on' => 'ticket', 'when' => ['kind' => 'changed', 'fields' => ['status']],
            'onlyIf' => ['kind' => 'all', 'of' => [[
                'kind' => 'is', 'total' => [
                    'of' => 'count', 'relation' => 'customer>ticket.customer',
                    'where' => ['kind' => 'is', 'field' => 'status', 'value' => 'closed'],
                ], 'value' => '3',
            ]]],
            'fires' => ['kind' => 'every_time'], 'lines' => [
                ['kind' => 'set_fields', 'set' => [['field' => 'priority', 'to' => ['kind' => 'value', 'value' => 'high']]]],
            ],
        ]);
        $customer = $this->customer()['id'];
        $ids = array_map(fn (): int => $this->ticket(['customer' => $customer])['record']['id'], range(1, 5));
        $this->app->make(SaveMany::class)->change($this->type('ticket'), $ids, ['status' => 'closed'], new Actor(1));

        self::assertSame(
            ['normal', 'normal', 'high', 'normal', 'normal'],
            DB::table('records_ticket')->orderBy('id')->pluck('priority')->all(),
        );
    }

    /** @return array<string, mixed> everything that came of a random story, without what only the order of ids tells */
    private function story(int $seed, bool $atOnce): array
    {
        $type = $this->type('ticket');
        $customers = [$this->customer('One', 'basic')['id'], $this->customer('Two', 'full_care')['id']];
        $stories = new Stories(
            $seed,
            $this->app->make(SchemaStore::class)->schema(),
            ['ines.okafor', 'edda.marlow'],
            ['customer' => $customers, 'contact' => [0], 'quote' => [0]],
        );
        $first = (int) DB::table('entries')->max('id');
        $ids = [];
        for ($count = 0; $count < self::RECORDS; $count++) {
            $ids[] = $this->ticket([
                'subject' => "Ticket {$count}", 'customer' => $customers[$count % 2],
                'priority' => $stories->one(['low', 'normal', 'high']), 'status' => $stories->one(['open', 'waiting']),
                'hours' => (string) $stories->random->getInt(0, 3),
            ])['record']['id'];
        }
        for ($count = 1; $count <= 5; $count++) {
            do {
                $file = $stories->rule("Rule {$count}");
            } while (str_contains((string) json_encode($file), 'contact'));
            $this->inForce($file);
        }
        $changed = (int) DB::table('entries')->max('id');
        $this->clockAt('2026-11-24T10:00:00Z');
        $input = ['status' => $stories->one(['closed', 'waiting']), 'priority' => $stories->one(['urgent', 'high']), 'hours' => '2.5'];
        $save = $this->app->make(SaveRecord::class);
        $results = $atOnce ? array_map(
            static fn (SavedRow $row): ?string => $row->said === '' ? null : $row->said,
            $this->app->make(SaveMany::class)->change($type, $ids, $input, new Actor(1)),
        ) : $this->oneByOne($save, $type, $ids, $input);
        $base = min($ids);
        $plain = static fn (string $table): array => DB::table($table)->orderBy('id')->get()->map(
            static fn (object $row): array => array_diff_key((array) $row, ['id' => 1, 'customer' => 1]),
        )->all();

        return [
            'results' => array_values(array_map(
                static fn (?string $said): ?string => $said === null ? null : preg_replace('/[A-Z]-\d+/', '#', $said),
                $results,
            )),
            'tickets' => $plain('records_ticket'),
            'customers' => $plain('records_customer'),
            'entries' => $this->told($changed, $base),
            'tasks' => DB::table('tasks')->orderBy('id')->get()->map(
                static fn (object $row): array => [preg_replace('/[A-Z]-\d+/', '#', $row->title), $row->assignee_id, $row->due_at],
            )->all(),
            'guards' => DB::table('guard_keys')->count(),
            'first' => $first === $changed,
        ];
    }

    /**
     * @param  list<int>  $ids
     * @param  array<string, string>  $input
     * @return array<int, ?string>
     */
    private function oneByOne(SaveRecord $save, RecordType $type, array $ids, array $input): array
    {
        $results = [];
        foreach ($ids as $id) {
            $version = (int) DB::table('records_ticket')->where('id', $id)->value('version');
            try {
                $save->change($type, $id, $version, $input, new Actor(1));
                $results[$id] = null;
            } catch (DomainError $refused) {
                $results[$id] = $refused->getMessage();
            }
        }

        return $results;
    }

    /** @return list<array{string, ?string, string, int}> entries since one: kind, rule, record counted from the first, version */
    private function told(int $from, int $base): array
    {
        $rows = DB::select(
            'SELECT e.*, r.name FROM entries e LEFT JOIN rules r ON r.id = e.rule_id WHERE e.id > ? ORDER BY e.record_type, e.record_id, '
                .'e.id',
            [$from],
        );

        return array_map(
            static fn (object $row): array => [
                $row->kind, $row->name, $row->record_type.($row->record_type === 'ticket' ? (int) $row->record_id - $base : ''),
                (int) $row->version,
            ],
            $rows,
        );
    }

    private function type(string $name): RecordType
    {
        return $this->app->make(SchemaStore::class)->schema()->types[$name];
    }
}
