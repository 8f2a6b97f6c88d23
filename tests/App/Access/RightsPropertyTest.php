<?php

declare(strict_types=1);

namespace Tests\App\Access;

use App\Models\Access\StoredRole;
use App\Models\People\Person;
use App\Store\Types\SchemaStore;
use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\App\Support\AppTestCase;
use VividLedger\Rights\Act;
use VividLedger\Rights\Reach;
use VividLedger\Rights\RoleFile;

/**
 * Whatever somebody asks, they find what their role says, as somebody would reckon it who goes through all records one by one; and
 * nothing of the rest shows in a list, a count, a sum, a sort, a path, a file, a search, the ledger or a task.
 */
final class RightsPropertyTest extends AppTestCase
{
    private const PEOPLE = ['lena.abara', 'bram.castellan', 'priya.lindqvist', 'tariq.bell', 'tomas.weld', 'teo.marsh'];

    /** @return iterable<string, array{int}> */
    public static function seeds(): iterable
    {
        foreach (range(1, 12) as $seed) {
            yield "seed {$seed}" => [$seed];
        }
    }

    #[DataProvider('seeds')]
    public function test_whatever_somebody_asks_they_find_what_their_role_says(int $seed): void
    {
        mt_srand($seed);
        $records = $this->records();
        $file = self::randomRole();
        self::assertSame([], RoleFile::read('drawn', $file, $this->app->make(SchemaStore::class)->schema())[1]);
        StoredRole::query()->create(['name' => 'drawn', 'position' => 9, 'version' => 1, 'file' => $file]);
        $who = self::one(self::PEOPLE);
        $this->person($who)->update(['role' => 'drawn']);
        $this->asked = $who;

        $seen = [];
        foreach ($records as $type => $rows) {
            $seen[$type] = array_filter($rows, fn (array $row): bool => $this->reckoned($who, $file, $type, Act::Read, $row));
        }
        foreach ($records as $type => $rows) {
            isset($file['reaches'][$type]['read']) ? $this->findsExactly($type, $rows, $seen, $file)
                : $this->ask('GET', "records/{$type}")->assertNotFound();
        }
        $this->listsNothingElse($records, $seen);
        $this->mayWhatItSays($records, $who, $file);
    }

    private string $asked = '';

    /**
     * @param  array<int, array<string, mixed>>  $rows  all of a type, by id
     * @param  array<string, array<int, array<string, mixed>>>  $seen  by type
     * @param  array<string, mixed>  $file
     */
    private function findsExactly(string $type, array $rows, array $seen, array $file): void
    {
        $mine = array_keys($seen[$type]);
        $page = $this->ask('GET', "records/{$type}?perPage=200")->assertOk();
        self::assertEqualsCanonicalizing($mine, array_column($page->json('rows'), 'id'));
        self::assertSame(count($mine), $page->json('total'));
        $hidden = array_keys($file['fields'][$type] ?? [], 'hidden', true);
        foreach ($page->json('rows') as $shown) {
            self::assertSame([], array_intersect($hidden, array_keys($shown['values'] + $shown['shown'])), 'hidden fields are not there');
        }
        foreach ($hidden as $field) {
            $this->ask('GET', "records/{$type}?sort={$field}")->assertStatus(422);
            $this->ask('GET', "records/{$type}?filter=".urlencode((string) json_encode(['kind' => 'is_filled', 'field' => $field])))
                ->assertStatus(422);
        }
        foreach ($rows as $id => $row) {
            $status = in_array($id, $mine, true) ? 200 : 404;
            $this->ask('GET', "records/{$type}/{$id}")->assertStatus($status);
            $this->ask('GET', "records/{$type}/{$id}/account")->assertStatus($status);
        }
        if ($type === 'ticket') {
            $this->countsAndPaths($seen, $file);
        }
    }

    /**
     * @param  array<string, array<int, array<string, mixed>>>  $seen
     * @param  array<string, mixed>  $file
     */
    private function countsAndPaths(array $seen, array $file): void
    {
        $open = array_filter($seen['ticket'], static fn (array $row): bool => $row['status'] === 'open');
        $counts = array_column($this->ask('GET', 'records/ticket/counts/status')->assertOk()->json(), 'count', 'value');
        self::assertSame(count($open), $counts['open'] ?? 0);
        $records = $this->ask('GET', 'find?text=Palm')->assertOk()->json('records');
        $found = array_column(array_filter($records, static fn (array $one): bool => $one['type'] === 'ticket'), 'id');
        self::assertLessThanOrEqual(20, count($found));
        self::assertSame([], array_diff($found, array_keys($seen['ticket'])), 'a search finds nothing else');

        $isBehind = static fn (array $row): bool => isset($seen['customer'][$row['customer']]);
        $gold = array_keys(array_filter($seen['ticket'], static fn (array $row): bool => $isBehind($row)
            && $seen['customer'][$row['customer']]['plan'] === 'care'));
        $empty = array_keys(array_filter($seen['ticket'], static fn (array $row): bool => ! $isBehind($row)));
        $canPass = isset($file['reaches']['customer']['read']);
        $this->filtered(['kind' => 'is', 'field' => 'customer.plan', 'value' => 'care'], $canPass ? $gold : null);
        $this->filtered(['kind' => 'is_empty', 'field' => 'customer.name'], $canPass ? $empty : null);
        if ($canPass) {
            // How many tickets each customer has, as far as they see them.
            $many = array_count_values(array_column($seen['ticket'], 'customer'));
            $this->filtered(
                ['kind' => 'at_least', 'total' => ['of' => 'count', 'relation' => 'ticket.customer'], 'value' => '2'],
                array_keys(array_filter($seen['customer'], static fn (array $row): bool => ($many[$row['id']] ?? 0) >= 2)),
                'customer',
            );
        }
        foreach ($this->ask('GET', 'records/ticket?perPage=200')->json('rows') as $shown) {
            $customer = $seen['customer'][$shown['values']['customer'] ?? 0] ?? null;
            self::assertSame($customer['name'] ?? null, $customer === null ? null : $shown['shown']['customer']);
            self::assertStringNotContainsString('Customer', $customer === null ? ($shown['shown']['customer'] ?? '') : '',
                'only its number');
        }
    }

    /** @param  ?list<int>  $ids  null where there is no such field for them */
    private function filtered(array $condition, ?array $ids, string $type = 'ticket'): void
    {
        $answer = $this->ask('GET', "records/{$type}?perPage=200&filter=".urlencode((string) json_encode($condition)));
        if ($ids === null) {
            $answer->assertStatus(422);

            return;
        }
        $answer->assertOk();
        self::assertEqualsCanonicalizing($ids, array_column($answer->json('rows'), 'id'), (string) json_encode($condition));
        self::assertSame(count($ids), $answer->json('total'));
    }

    /**
     * @param  array<string, array<int, array<string, mixed>>>  $records
     * @param  array<string, array<int, array<string, mixed>>>  $seen
     */
    private function listsNothingElse(array $records, array $seen): void
    {
        $me = $this->person($this->asked)->id;
        foreach ($this->ask('GET', 'tasks?whose=all&status=all&limit=500')->assertOk()->json('tasks') as $task) {
            self::assertTrue($task['assigneeId'] === $me || isset($seen[$task['recordType']][$task['recordId']]), 'a task');
        }
        $lines = $this->ask('GET', 'lines?date=2026-11-27')->assertOk()->json();
        foreach ($lines as $line) {
            self::assertTrue(isset($seen[$line['recordType']][$line['recordId']]), 'a pencilled line');
        }
        self::assertCount(count($seen['ticket']), $lines);
        $own = $this->ask('GET', 'lines?date=2026-11-27&whose=mine')->assertOk()->json();
        self::assertSame([], array_diff(array_column($own, 'id'), array_column($lines, 'id')), 'of one’s own no other');
        $ahead = array_sum(array_map(array_sum(...), array_column($this->ask('GET', 'today')->json('days'), 'kinds')));
        self::assertSame(count($own), $ahead, 'and they are counted alike');
        $entries = $this->ask('GET', 'ledger')->assertOk()->json('entries');
        $about = array_filter($entries, static fn (array $entry): bool => $entry['recordId'] !== null);
        foreach ($about as $entry) {
            self::assertTrue(isset($seen[$entry['recordType']][$entry['recordId']]), "entry {$entry['number']}");
        }
        $kept = DB::table('entries')->whereNotNull('record_id')->whereIn('kind', ['created', 'fired'])
            ->get(['id', 'record_type', 'record_id']);
        $shown = array_column($entries, 'number');
        foreach ($kept as $row) {
            $sees = isset($seen[$row->record_type][$row->record_id]);
            self::assertSame($sees, in_array($row->id, $shown, true) || (count($entries) === 50 && $sees));
            $this->ask('GET', "ledger/{$row->id}")->assertStatus($sees ? 200 : 404);
        }
        // Whatever stands in any answer, no title of a record they do not see is in it.
        $said = implode('', array_map(fn (string $path): string => (string) $this->ask('GET', $path)->getContent(), [
            'ledger', 'tasks?whose=all', 'today', 'lines?date=2026-11-27', 'lines/set-aside', 'slips?box=all', 'messages',
            'find?text=Secret',
        ]));
        foreach ($records as $type => $rows) {
            foreach (array_diff_key($rows, $seen[$type]) as $row) {
                self::assertStringNotContainsString($row['secret'], $said, "of {$type} {$row['id']}");
            }
        }
    }

    /**
     * @param  array<string, array<int, array<string, mixed>>>  $records
     * @param  array<string, mixed>  $file
     */
    private function mayWhatItSays(array $records, string $who, array $file): void
    {
        foreach ($records['ticket'] as $id => $row) {
            $sees = $this->reckoned($who, $file, 'ticket', Act::Read, $row);
            foreach (['PATCH' => Act::Change, 'DELETE' => Act::Delete] as $method => $act) {
                DB::beginTransaction();
                $body = ['version' => $row['version'], 'values' => ['subject' => 'Another']];
                $status = $this->ask($method, "records/ticket/{$id}".($method === 'DELETE' ? "?version={$row['version']}" : ''), $body)
                    ->getStatusCode();
                DB::rollBack();
                $ever = ($file['reaches']['ticket'][$act->value] ?? 'none') !== 'none';
                $expected = match (true) {
                    ! isset($file['reaches']['ticket']['read']) => [404, 403],
                    ! $ever => [403],
                    ! $sees => [404],
                    $this->reckoned($who, $file, 'ticket', $act, $row) => [200],
                    default => [403],
                };
                self::assertContains($status, $expected, "{$method} {$id}");
            }
        }
        $reach = $file['reaches']['ticket']['export'] ?? null;
        if ($reach !== null) {
            $lines = explode("\r\n", trim((string) $this->ask('GET', 'records/ticket/file')->assertOk()->streamedContent()));
            $out = array_filter($records['ticket'], fn (array $row): bool => $this->reckoned($who, $file, 'ticket', Act::Export, $row));
            self::assertCount(count($out) + 1, $lines);
        }
    }

    private function ask(string $method, string $path, array $body = []): \Illuminate\Testing\TestResponse
    {
        $this->flushControllers();

        return $this->as($this->asked, $method, $path, $body);
    }

    /**
     * The same question, asked of one record at a time and of everybody one by one.
     *
     * @param  array<string, mixed>  $file
     * @param  array<string, mixed>  $row
     */
    private function reckoned(string $who, array $file, string $type, Act $act, array $row): bool
    {
        $me = $this->person($who);
        $whose = Person::query()->find($row['owner'] ?? $row['created_by']);
        $reach = Reach::from($file['reaches'][$type][$act->value] ?? 'none');
        if ($reach === Reach::None || ($act !== Act::Read && ! $this->reckoned($who, $file, $type, Act::Read, $row))) {
            return false;
        }
        if ($reach === Reach::All) {
            return true;
        }
        if ($whose?->id === $me->id) {
            return true;
        }
        if ($reach === Reach::Subtree) {
            for ($above = $whose?->manager; $above !== null; $above = $above->manager) {
                if ($above->id === $me->id) {
                    return true;
                }
            }
        }

        return $reach === Reach::Team && $whose?->team === $me->team;
    }

    /** @return array<string, array<int, array<string, mixed>>> rows by type and id */
    private function records(): array
    {
        $this->inForce([
            'name' => 'Task for each', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'lines' => [
                ['kind' => 'give_task', 'to' => ['kind' => 'named', 'handle' => 'hugo.fenner'], 'title' => 'See to {subject}'],
                ['kind' => 'give_task', 'to' => ['kind' => 'named', 'handle' => 'hugo.fenner'], 'title' => 'And again {subject}',
                    'at' => ['kind' => 'after', 'amount' => 3, 'unit' => 'day']],
                ['kind' => 'send_message', 'channel' => 'app', 'to' => [['kind' => 'person', 'person' => ['kind' => 'named',
                    'handle' => 'hugo.fenner']]], 'subject' => 'About {subject}', 'body' => '<p>Look</p>'],
            ],
        ]);
        $ids = ['customer' => [], 'ticket' => []];
        $owner = fn (): ?int => mt_rand(0, 5) === 0 ? null : $this->person(self::one(self::PEOPLE))->id;
        foreach (range(1, 5) as $n) {
            $ids['customer'][] = $this->created('customer', [
                'name' => "Customer Secret{$n}k", 'plan' => self::one(['care', 'basic', null]), 'owner' => $owner(),
            ], self::one(self::PEOPLE))['record']['id'];
        }
        foreach (range(1, 14) as $n) {
            $ids['ticket'][] = $this->created('ticket', [
                'subject' => "Palm Secret{$n}t", 'priority' => 'normal', 'status' => self::one(['open', 'waiting']), 'owner' => $owner(),
                'customer' => self::one($ids['customer']),
            ], self::one(self::PEOPLE))['record']['id'];
        }
        $rows = [];
        foreach ($ids as $type => $of) {
            foreach (DB::table("records_{$type}")->whereIn('id', $of)->get() as $row) {
                $rows[$type][(int) $row->id] = ['secret' => explode(' ', $row->name ?? $row->subject)[1]] + (array) $row;
            }
        }

        return $rows;
    }

    /** @return array<string, mixed> */
    private static function randomRole(): array
    {
        $reaches = [];
        foreach (['customer', 'ticket'] as $type) {
            $read = Reach::from(self::one(['own', 'team', 'subtree', 'team', 'subtree', 'all', 'none']));
            if ($read === Reach::None) {
                continue;
            }
            $reaches[$type]['read'] = $read->value;
            foreach (['change', 'delete', 'export'] as $act) {
                $reach = Reach::from(self::one(['none', 'own', 'team', 'subtree', 'all']));
                if ($reach !== Reach::None && $read->holds($reach)) {
                    $reaches[$type][$act] = $reach->value;
                }
            }
        }
        $hidden = array_filter(['cost', 'hours', 'due'], static fn (): bool => mt_rand(0, 2) === 0);

        return [
            'label' => 'Drawn', 'duties' => ['see_ledger', 'see_messages'], 'reaches' => $reaches,
            'fields' => $hidden === [] ? [] : ['ticket' => array_fill_keys(array_values($hidden), 'hidden')],
        ];
    }

    private static function one(array $of): mixed
    {
        return $of[mt_rand(0, count($of) - 1)];
    }
}
