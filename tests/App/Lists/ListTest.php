<?php

declare(strict_types=1);

namespace Tests\App\Lists;

use Illuminate\Support\Facades\DB;
use Tests\App\Support\AppTestCase;

/** Lists: search, sort, paging and filters. */
final class ListTest extends AppTestCase
{
    public function test_search_sort_paging_and_filter(): void
    {
        $hotel = $this->customer('Brine & Barrow Hotel', 'full_care')['id'];
        $clinic = $this->customer('Quayside Clinic', 'basic')['id'];
        $ids = [];
        foreach ([['Ficus wall wilting', $hotel, 'urgent', '2026-12-01'], ['Gnats in room 4', $clinic, 'low', null],
            ['ficus sheds leaves', $clinic, 'high', '2026-11-20'], ['Wrong pots', $hotel, 'low', '2026-11-25']] as [$subject, $customer,
                $priority, $due]) {
            $ids[] = $this->ticket([
                'subject' => $subject, 'customer' => $customer, 'priority' => $priority, 'due' => $due,
            ])['record']['id'];
        }
        $list = fn (string $query): array => array_map(
            static fn (int $id): int => (int) array_search($id, $ids, true),
            array_column($this->as('odile.march', 'GET', "records/ticket?{$query}")->assertOk()->json('rows'), 'id'),
        );
        $filter = static fn (array $condition): string => 'sort=created_at&filter='.rawurlencode(json_encode(
            $condition,
            JSON_THROW_ON_ERROR,
        ));

        self::assertSame([3, 2, 1, 0], $list(''), 'the newest first');
        self::assertSame([2, 0], $list('search=FICUS'));
        self::assertSame([0], $list('search=wall+ficus'), 'every word has to be found');
        self::assertSame([1], $list('search='.sprintf('T-%04d', $ids[1])));
        self::assertSame([], $list('search=nothing'));
        self::assertSame([1, 2, 3, 0], $list('sort=due'), 'empty ones first');
        self::assertSame([0, 3, 2, 1], $list('sort=-due'));
        self::assertSame([2, 0, 1, 3], $list('sort=subject'), 'sorted without regard to case');
        self::assertSame([0], $list('sort=due&perPage=3&page=2'));
        self::assertSame([0, 3], $list($filter(['kind' => 'is', 'field' => 'customer.plan', 'value' => 'full_care'])));
        self::assertSame(
            [2],
            $list($filter([
                'kind' => 'all',
                'of' => [
                    ['kind' => 'not_one_of', 'field' => 'priority', 'values' => ['low', 'urgent']],
                    ['kind' => 'under', 'field' => 'due', 'value' => '2026-12-01'],
                ],
            ])),
        );
        self::assertSame(4, $this->as('odile.march', 'GET', 'records/ticket?perPage=1')->json('total'));
        self::assertSame(
            [null, 4],
            [
                $this->as('odile.march', 'GET', 'records/ticket?perPage=1&total=no')->json('total'),
                $this->as('odile.march', 'GET', 'records/ticket?total=no')->json('total'),
            ],
            'not counted, unless the page shows it',
        );
        self::assertEqualsCanonicalizing(
            [['value' => 'low', 'count' => 2], ['value' => 'high', 'count' => 1], ['value' => 'urgent', 'count' => 1]],
            $this->as('odile.march', 'GET', 'records/ticket/counts/priority')->json(),
        );
        $reading = $this->as(
            'odile.march',
            'POST',
            'records/ticket/filter',
            ['filter' => ['kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'priority', 'value' => 'low'], []]]],
        )->assertOk()->json();
        self::assertSame(
            [['/filter/of/1/field'], 'Priority'],
            [array_column($reading['problems'], 'at'), $reading['rows'][1]['words'][0]['text']],
        );
    }

    public function test_conditions_are_typed_as_people_say_them_and_name_only_what_one_may_see(): void
    {
        $typed = fn (string $text): array => $this->as('odile.march', 'POST', 'records/ticket/filter/text', ['text' => $text])
            ->assertOk()->json();
        $high = ['kind' => 'is', 'field' => 'priority', 'value' => 'high'];
        self::assertEquals(['kind' => 'all', 'of' => [$high]], $typed('priority is High')['file']);
        self::assertSame('any', $typed('priority is high or the due is empty')['file']['kind']);
        $wrong = $typed('priorty is high');
        self::assertSame([null, 'Priority'], [$wrong['file'], $wrong['misread'][0]['meant']]);
        self::assertContains('High', $typed('priority is')['misread'][0]['offers']);
        $this->as('odile.march', 'POST', 'records/nothing/filter/text', ['text' => 'priority is high'])->assertNotFound();
    }

    public function test_a_page_of_records_takes_a_fixed_number_of_queries(): void
    {
        $count = function (int $rows): int {
            while (DB::table('records_ticket')->count() < $rows) {
                $this->ticket(['customer' => $this->customer('Customer '.DB::table('records_customer')->count())['id']]);
            }
            DB::enableQueryLog();
            DB::flushQueryLog();
            $this->as('odile.march', 'GET', 'records/ticket')->assertOk();

            return count(array_filter(
                DB::getQueryLog(),
                static fn (array $query): bool => ! str_contains($query['query'], 'select * from `people`'),
            ));
        };
        $few = $count(3);
        self::assertGreaterThan(0, $few);
        self::assertLessThanOrEqual($few, $count(12), 'names are fetched together, however many rows there are');
    }

    public function test_today_the_ledger_and_tasks_are_told_from_the_house_clock(): void
    {
        $this->inForce($this->demoFile('010-urgent-ticket'));
        $this->ticket(['priority' => 'urgent']);
        $this->clockAt('2026-11-25T08:00:00Z');
        $this->ticket(['priority' => 'urgent']);
        $today = $this->as('priya.lindqvist', 'GET', 'today')->assertOk()->json();

        self::assertSame([1, 1, 2], [$today['late'], $today['dueToday'], count($today['tasks'])]);
        self::assertSame(
            ['2026-11-25', ['task' => 1], false],
            [$today['days'][0]['date'], $today['days'][0]['kinds'], $today['days'][0]['free']],
        );
        $rules = $this->as('ines.okafor', 'GET', 'today/rules')->assertOk()->json();
        self::assertSame([1, 1], array_slice($rules['rules'][0]['days'], -2));
        $first = $this->as('odile.march', 'GET', 'ledger')->json('entries');
        self::assertSame(array_column($first, 'number'), collect($first)->pluck('number')->sortDesc()->values()->all());
        self::assertSame(
            [2, 2],
            array_values($this->as('priya.lindqvist', 'GET', 'tasks?whose=all')->collect()->only('total', 'mineOpen')->all()),
        );
    }
}
