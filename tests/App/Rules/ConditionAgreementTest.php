<?php

declare(strict_types=1);

namespace Tests\App\Rules;

use App\Models\Columns;
use App\Models\Records\StoredRecord;
use App\Store\Access\SeenContext;
use App\Store\Lists\RecordList;
use App\Store\Records\PaperFacts;
use App\Store\Sql\Batch;
use App\Store\Types\SchemaStore;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\AppTestCase;
use Tests\Core\Support\Stories;
use VividLedger\Condition\ConditionReader;
use VividLedger\Facts\View;
use VividLedger\Formula\ComputedFields;
use VividLedger\Listing\Sort;
use VividLedger\Record\Fold;
use VividLedger\Record\Record;
use VividLedger\Record\Value;
use VividLedger\Schema\RecordType;
use VividLedger\Shape\Node;

/** The closure and the query of one condition always agree, empties and all. */
final class ConditionAgreementTest extends AppTestCase
{
    private const RECORDS = 60;

    public function test_closure_and_query_find_the_same_records(): void
    {
        $schema = $this->app->make(SchemaStore::class)->schema();
        $people = ['ines.okafor', 'edda.marlow', 'tomas.weld', 'odile.march'];
        $ids = ['customer' => [1], 'contact' => [1], 'quote' => [1], 'agreement' => [1], 'partner' => [1], 'visit' => [1], 'ticket' => [1]];
        foreach (['customer' => 8, 'contact' => 3, 'quote' => 20, 'agreement' => 8, 'partner' => 2, 'visit' => 40,
            'ticket' => self::RECORDS] as $name => $count) {
            $ids[$name] = $this->filled($schema->types[$name], new Stories(11, $schema, $people, $ids), $count);
        }
        $stories = new Stories(12, $schema, $people, $ids);
        $stories->teams = ['Service Quayside', 'Sales Quayside', (string) $this->person('ines.okafor')->team];
        $mixed = 0;
        foreach (['ticket' => 300, 'customer' => 150, 'agreement' => 150, 'quote' => 150] as $name => $conditions) {
            $mixed += $this->agree($schema->types[$name], $stories, $conditions);
        }
        self::assertGreaterThan(180, $mixed, 'Too many conditions hold for all records or for none.');
    }

    /** @return int how many of the conditions held for some records and not for others */
    private function agree(RecordType $type, Stories $stories, int $conditions): int
    {
        $facts = $this->app->make(PaperFacts::class);
        $records = array_map(
            static fn (object $row): Record => Columns::record($type, $row),
            DB::select("SELECT * FROM records_{$type->name} ORDER BY id"),
        );
        $list = $this->app->make(RecordList::class);
        $mixed = 0;
        for ($count = 0; $count < $conditions; $count++) {
            $file = $stories->condition($type);
            $context = $this->app->make(SeenContext::class)->of($type);
            $condition = ConditionReader::read($context, new Node($file));
            self::assertNotNull($condition, json_encode([$file, $context->sheet->problems], JSON_THROW_ON_ERROR));
            $test = $condition->compile();
            $byClosure = array_values(array_map(
                static fn (Record $record): int => $record->id,
                array_filter($records, static fn (Record $record): bool => $test(new View($record, $facts))),
            ));
            $byQuery = array_map(
                static fn (Record $record): int => $record->id,
                $list->page($type, $condition, '', [Sort::byField($type->fields['created_at'])], 1, self::RECORDS)[0],
            );
            sort($byQuery);

            self::assertSame($byClosure, $byQuery, json_encode($file, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE));
            $mixed += $byClosure !== [] && count($byClosure) < count($records) ? 1 : 0;
        }

        return $mixed;
    }

    /** Formulas with the smallest and the largest numbers that are taken: exact in both, to the last digit. */
    public function test_formulas_reckon_alike_with_the_smallest_and_the_largest_numbers(): void
    {
        $schema = $this->app->make(SchemaStore::class)->schema();
        $type = $schema->types['customer'];
        foreach (['0.01', '-0.01', '0.09', '11111.12', '999999999999999.99', '-999999999999999.99', '0.00', '123456789.01'] as $value) {
            DB::table('records_customer')->insert([
                'id' => DB::table('records_customer')->max('id') + 1, 'version' => 1, 'name' => 'x', 'kind' => 'hotel',
                'yearly_value' => $value, 'discount' => $value === '0.09' ? '12.5' : '0.1', 'key_account' => 0,
                'created_at' => '2026-01-01', 'updated_at' => '2026-01-01',
            ]);
        }
        $facts = $this->app->make(PaperFacts::class);
        $records = array_map(
            static fn (object $row): Record => Columns::record($type, $row),
            DB::select('SELECT * FROM records_customer ORDER BY id'),
        );
        $random = new \Random\Randomizer(new \Random\Engine\Mt19937(5));
        $one = static fn (array $of): string => $of[$random->getInt(0, count($of) - 1)];
        $number = static fn (): string => $one([
            'yearly_value', 'discount', 'yearly_value', '0.00009', '0.000000000001', '999999999999999', '123456789012345.123456789012', '3',
            '7', '0.5',
        ]);
        $list = $this->app->make(RecordList::class);
        $taken = 0;
        for ($count = 0; $count < 400; $count++) {
            $left = $number();
            for ($more = $random->getInt(0, 2); $more > 0; $more--) {
                $left = match ($random->getInt(1, 3)) {
                    1 => "round({$left} {$one(['+', '-', '*', '/'])} {$number()}, {$random->getInt(0, 6)})",
                    2 => "least({$left}, {$number()})",
                    default => "({$left} {$one(['+', '-', '*', '/'])} {$number()})",
                };
            }
            $context = $this->app->make(SeenContext::class)->of($type);
            $condition = ConditionReader::read(
                $context,
                new Node(['kind' => 'formula', 'formula' => "{$left} {$one(['<', '<=', '==', '>', '>='])} {$number()}"]),
            );
            if ($condition === null) {
                continue;
            }
            $taken++;
            $test = $condition->compile();
            $byClosure = array_map(
                static fn (Record $record): int => $record->id,
                array_values(array_filter($records, static fn (Record $record): bool => $test(new View($record, $facts)))),
            );
            $byQuery = array_map(
                static fn (Record $record): int => $record->id,
                $list->page($type, $condition, '', [Sort::byField($type->fields['created_at'])], 1, self::RECORDS)[0],
            );
            sort($byQuery);
            self::assertSame($byClosure, $byQuery, $left);
        }
        self::assertGreaterThan(250, $taken);
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
            $places = implode(
                ' UNION ALL ',
                array_fill(0, count($characters), 'SELECT LOWER(CONVERT(? USING utf8mb4) COLLATE utf8mb4_unicode_ci) AS folded'),
            );
            $bySql = array_column(DB::select($places, $characters), 'folded');
            self::assertSame($bySql, array_map(Fold::text(...), $characters));
        }
    }

    /** @return list<int> ids of so many random records, put straight into the table */
    private function filled(RecordType $type, Stories $stories, int $count): array
    {
        $rows = [];
        for ($index = 0; $index < $count; $index++) {
            $values = [];
            foreach ($type->fields as $name => $field) {
                $values[$name] = Value::of($field->unbounded(), $stories->value($field));
            }
            $row = [];
            foreach (ComputedFields::with($type, $values) as $name => $value) {
                $row[$name] = Columns::column($type->fields[$name], $value);
            }
            $rows[] = $row;
        }

        $next = fn (): int => (int) DB::scalar('SELECT NEXTVAL(`'.StoredRecord::sequenceOf($type->name).'`)');

        return Batch::insertForIds(
            StoredRecord::of($type->name),
            array_map(static fn (array $row): array => ['id' => $next()] + $row, $rows),
        );
    }
}
