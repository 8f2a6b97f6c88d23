<?php

declare(strict_types=1);

namespace Tests\App;

use App\Store\Batch;
use App\Store\Columns;
use App\Store\RecordList;
use App\Store\SchemaStore;
use App\Store\StoredFacts;
use App\Store\TypeTable;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\AppTestCase;
use Tests\Core\Support\Stories;
use VividLedger\Engine\View;
use VividLedger\Record\Fold;
use VividLedger\Record\Record;
use VividLedger\Rule\Reading\ConditionReader;
use VividLedger\Rule\Reading\Context;
use VividLedger\Rule\Reading\Node;
use VividLedger\Schema\RecordType;

/** The closure and the query of one condition always agree, empties and all. */
final class ConditionAgreementTest extends AppTestCase
{
    private const RECORDS = 60;

    private const CONDITIONS = 600;

    public function test_closure_and_query_find_the_same_records(): void
    {
        $schema = $this->app->make(SchemaStore::class)->schema();
        $stories = new Stories(11, $schema, ['ines.okafor', 'edda.marlow', 'tomas.weld', 'odile.march'], ['customer' => [1, 2, 3], 'contact' => [1, 2]]);
        $customers = $this->filled($schema->types['customer'], $stories, 3);
        $contacts = $this->filled($schema->types['contact'], $stories, 2);
        $stories = new Stories(12, $schema, ['ines.okafor', 'edda.marlow', 'tomas.weld', 'odile.march'], ['customer' => $customers, 'contact' => $contacts]);
        $type = $schema->types['ticket'];
        $this->filled($type, $stories, self::RECORDS);
        $facts = $this->app->make(StoredFacts::class);
        $tickets = array_map(static fn (object $row): Record => Columns::record($type, $row), DB::select('SELECT * FROM records_ticket ORDER BY id'));
        $list = $this->app->make(RecordList::class);
        $mixed = 0;
        for ($count = 0; $count < self::CONDITIONS; $count++) {
            $file = $stories->condition($type);
            $context = $this->app->make(Context::class, ['type' => $type]);
            $condition = ConditionReader::read($context, new Node($file));
            self::assertNotNull($condition, json_encode([$file, $context->problems], JSON_THROW_ON_ERROR));
            $test = $condition->compile();
            $byClosure = array_values(array_map(static fn (Record $ticket): int => $ticket->id, array_filter($tickets, static fn (Record $ticket): bool => $test(new View($ticket, $facts)))));
            $byQuery = array_map(static fn (Record $ticket): int => $ticket->id, $list->page($type, $condition, '', 'created_at', false, 1, self::RECORDS)[0]);
            sort($byQuery);

            self::assertSame($byClosure, $byQuery, json_encode($file, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE));
            $mixed += $byClosure !== [] && count($byClosure) < self::RECORDS ? 1 : 0;
        }
        self::assertGreaterThan(self::CONDITIONS / 4, $mixed, 'Too many conditions hold for all records or for none.');
    }

    /** All of Unicode's letters, digits, marks and symbols: PHP and MariaDB fold every one of them alike. */
    public function test_text_is_folded_alike_in_php_and_in_sql(): void
    {
        for ($from = 0x20; $from < 0x1F000; $from += 2048) {
            $characters = [];
            for ($code = $from; $code < $from + 2048; $code++) {
                $character = $code >= 0xD800 && $code <= 0xDFFF ? false : mb_chr($code);
                if ($character !== false && preg_match('/[\p{L}\p{N}\p{M}\p{S}]/u', $character) === 1) {
                    $characters[] = $character;
                }
            }
            if ($characters === []) {
                continue;
            }
            $places = implode(' UNION ALL ', array_fill(0, count($characters), 'SELECT LOWER(CONVERT(? USING utf8mb4) COLLATE utf8mb4_unicode_ci) AS folded'));
            $bySql = array_column(DB::select($places, $characters), 'folded');
            self::assertSame($bySql, array_map(Fold::text(...), $characters));
        }
    }

    /** @return list<int> ids of so many random records, put straight into the table */
    private function filled(RecordType $type, Stories $stories, int $count): array
    {
        $rows = [];
        for ($index = 0; $index < $count; $index++) {
            $row = [];
            foreach ($type->fields as $name => $field) {
                $row[$name] = Columns::column($field, $stories->value($field));
            }
            $rows[] = $row;
        }

        return Batch::insertForIds(DB::connection(), TypeTable::name($type->name), $rows);
    }
}
