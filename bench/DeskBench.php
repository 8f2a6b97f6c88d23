<?php

declare(strict_types=1);

namespace Bench;

use App\Models\People\Person;
use App\Store\Access\SeenContext;
use App\Store\Lists\RecordList;
use App\Store\Lists\RecordSearch;
use App\Store\Types\SchemaStore;
use Illuminate\Database\Connection;
use VividLedger\Condition\ConditionReader;
use VividLedger\Listing\Columns;
use VividLedger\Shape\Node;

/** A million tickets: a page, a filter, groups and words, each beside the SQL a person would write for it. */
final class DeskBench
{
    private const TICKETS = 1_000_000;

    private const TIMES = 3;

    public static function run(): void
    {
        $db = app(Connection::class);
        ManyTickets::fill($db, self::TICKETS);
        $schema = app(SchemaStore::class)->schema();
        $type = $schema->types['ticket'];
        $columns = new Columns($schema, $type);
        $list = app(RecordList::class);
        auth()->guard('web')->setUser(Person::query()->where('handle', 'ines.okafor')->firstOrFail());
        $condition = ConditionReader::read(app(SeenContext::class)->of($type), new Node([
            'kind' => 'all', 'of' => [
                ['kind' => 'is', 'field' => 'status', 'value' => 'waiting'], ['kind' => 'is', 'field' => 'priority', 'value' => 'urgent'],
            ],
        ])) ?? throw new \LogicException('The filter is not sound.');
        $path = $columns->named('customer.plan')->path ?? throw new \LogicException('There is no such path.');
        $due = array_values(array_filter([$columns->sort('-due')]));
        $by = $columns->named('status')->path ?? throw new \LogicException('There is no such field.');
        $pdo = $db->getPdo();
        $plain = static fn (string $sql): \Closure => static fn (): array => $pdo->query($sql)->fetchAll(\PDO::FETCH_OBJ);
        foreach ([
            'a page, with a column over a reference' => [
                static fn () => $list->page($type, null, '', $due, 1, 25, false, [$path]),
                'SELECT t.*, c.plan FROM records_ticket t LEFT JOIN records_customer c ON c.id = t.customer ORDER BY t.due DESC, t.id DESC '
                .'LIMIT 25',
            ],
            'page 2,000' => [
                static fn () => $list->page($type, null, '', $due, 2000, 25, false),
                'SELECT t.* FROM records_ticket t JOIN (SELECT id FROM records_ticket ORDER BY due DESC, id DESC LIMIT 25 OFFSET 49975) p '
                .'ON p.id = t.id ORDER BY t.due DESC, t.id DESC',
            ],
            'a filter of two fields, its first page' => [
                static fn () => $list->page($type, $condition, '', [], 1, 25, false),
                "SELECT t.* FROM records_ticket t WHERE t.status = 'waiting' AND t.priority = 'urgent' ORDER BY t.id DESC LIMIT 25",
            ],
            'groups, counted' => [
                static fn () => $list->groups($type, null, '', $by, []),
                'SELECT status AS value, COUNT(*) AS n FROM records_ticket GROUP BY status',
            ],
            'a list narrowed by two words' => [
                static fn () => $list->page($type, null, 'ficus lobby77', [], 1, 25, false),
                "SELECT t.* FROM records_ticket t WHERE t.id IN (SELECT record_id FROM found_texts WHERE record_type = 'ticket' AND "
                ."MATCH(title, body) AGAINST('+ficus* +lobby77*' IN BOOLEAN MODE)) ORDER BY t.id DESC LIMIT 25",
            ],
            'find two words among all records' => [
                static fn () => app(RecordSearch::class)->records('monstera lobby123', 20),
                "SELECT record_type, record_id, title FROM found_texts WHERE MATCH(title, body) AGAINST('+monstera* +lobby123*' IN BOOLEAN "
                .'MODE) ORDER BY id DESC LIMIT 20',
            ],
            'find a word that is misspelt' => [
                static fn () => app(RecordSearch::class)->records('monstrea lobby123', 20),
                "SELECT record_type, record_id, title FROM found_texts WHERE MATCH(title, body) AGAINST('+monstera* +lobby123*' IN BOOLEAN "
                .'MODE) ORDER BY id DESC LIMIT 20',
            ],
        ] as $what => [$work, $sql]) {
            [$median] = Timing::pair("desk: a million tickets, {$what}", 'the SQL written by hand', self::TIMES, $work, $plain($sql), 1.5);
            Figures::one('  that is', $median / 1000, 'ms', str_contains($what, 'find') ? 'under 100' : 'under 200');
        }
    }
}
