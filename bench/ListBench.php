<?php

declare(strict_types=1);

namespace Bench;

use App\Models\People\Person;
use App\Models\Records\StoredRecord;
use App\Store\Access\SeenContext;
use App\Store\Lists\RecordList;
use App\Store\Sql\Batch;
use App\Store\Types\SchemaStore;
use Illuminate\Contracts\Http\Kernel;
use Illuminate\Database\Connection;
use Illuminate\Http\Request;
use VividLedger\Condition\ConditionReader;
use VividLedger\Listing\Sort;
use VividLedger\Shape\Node;

/** 200,000 tickets: filtered, sorted, the first page and the count, beside the SQL a person would write for it. */
final class ListBench
{
    private const TICKETS = 200_000;

    private const TIMES = 5;

    public static function run(): void
    {
        $db = app(Connection::class);
        self::fill($db);
        $type = app(SchemaStore::class)->schema()->types['ticket'];
        $filter = [
            'kind' => 'all',
            'of' => [
                ['kind' => 'is_not', 'field' => 'status', 'value' => 'closed'],
                ['kind' => 'is', 'field' => 'priority', 'value' => 'urgent'],
            ],
        ];
        $condition = ConditionReader::read(
            app(SeenContext::class)->of($type),
            new Node($filter),
        ) ?? throw new \LogicException('The filter is not sound.');
        $list = app(RecordList::class);
        $statements = [
            $db->getPdo()->prepare(
                "SELECT t.* FROM records_ticket t WHERE (t.status IS NULL OR t.status <> 'closed') AND t.priority = 'urgent' ORDER BY "
                    .'t.due, t.id LIMIT 25',
            ),
            $db->getPdo()->prepare(
                "SELECT COUNT(*) FROM records_ticket t WHERE (t.status IS NULL OR t.status <> 'closed') AND t.priority = 'urgent'",
            ),
        ];
        $floor = static function () use ($statements): void {
            foreach ($statements as $statement) {
                $statement->execute();
                $statement->fetchAll(\PDO::FETCH_OBJ);
            }
        };
        Timing::pair(
            'list: 200,000 tickets, filter + sort + first page + count',
            'the SQL written by hand',
            self::TIMES,
            static fn () => $list->page($type, $condition, '', [Sort::byField($type->fields['due'])], 1, 25),
            $floor,
            1.1,
        );

        auth()->guard('sanctum')->setUser(Person::query()->where('handle', 'ines.okafor')->firstOrFail());
        $kernel = app(Kernel::class);
        foreach (['with the count of all that fit' => 'yes', 'the page alone, as the screen asks first' => 'no'] as $what => $total) {
            $call = static function () use ($kernel, $filter, $total): void {
                $answer = $kernel->handle(Request::create(
                    "/api/records/ticket?sort=due&total={$total}&filter=".rawurlencode(json_encode($filter, JSON_THROW_ON_ERROR)),
                    'GET',
                    server: ['HTTP_ACCEPT' => 'application/json'],
                ));
                if ($answer->getStatusCode() !== 200) {
                    throw new \LogicException((string) $answer->getContent());
                }
            };
            $times = [];
            for ($round = 0; $round < 15; $round++) {
                $times[] = Timing::microseconds(1, $call);
            }
            Figures::one("list: the API call, {$what}", Timing::median($times) / 1000, 'ms', 'under 100');
        }
    }

    private static function fill(Connection $db): void
    {
        $have = (int) $db->scalar('SELECT COUNT(*) FROM records_ticket');
        mt_srand(5);
        for ($from = $have; $from < self::TICKETS; $from += 5000) {
            $rows = [];
            for ($index = 0; $index < 5000; $index++) {
                $rows[] = [
                    'id' => (int) $db->scalar('SELECT NEXTVAL(records_ticket_ids)'), 'subject' => 'Ticket '
                        .mt_rand(), 'customer' => 1, 'priority' => [
                            'low', 'normal', 'normal', 'high', 'urgent',
                        ][mt_rand(0, 4)], 'status' => [
                            'open', 'waiting', 'closed', 'closed', 'closed', 'closed',
                        ][mt_rand(0, 5)],
                    'owner' => mt_rand(1, 40), 'due' => date(
                        'Y-m-d',
                        1_790_000_000 + mt_rand(0, 400) * 86400,
                    ), 'under_care' => 0, 'created_at' => '2026-11-01 08:00:00', 'updated_at' => '2026-11-01 08:00:00',
                ];
            }
            Batch::insert(StoredRecord::of('ticket'), $rows);
        }
        $db->statement('ANALYZE TABLE records_ticket');
    }
}
