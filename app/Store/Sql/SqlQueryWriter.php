<?php

declare(strict_types=1);

namespace App\Store\Sql;

use App\Models\Columns;
use App\Models\People\Person;
use App\Models\Records\StoredRecord;
use App\Models\SignOffs\StoredSignOff;
use App\Store\Access\AccessScope;
use App\Store\Library\CalendarStore;
use VividLedger\Condition\Given\Given;
use VividLedger\Condition\Order;
use VividLedger\Condition\QueryWriter;
use VividLedger\Condition\Tree;
use VividLedger\Facts\Total;
use VividLedger\Facts\TotalKind;
use VividLedger\Formula\Formula;
use VividLedger\People\Route;
use VividLedger\Record\Fold;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Path;
use VividLedger\Schema\Readable;
use VividLedger\Time\WorkingCalendar;

/**
 * Writes conditions as SQL for MariaDB over a record type's table, aliased "t" unless told otherwise. SQL's NULL counts
 * as false: that is so at the end of a WHERE by itself, and below none() it is said with COALESCE.
 *
 * @implements QueryWriter<Sql>
 */
final class SqlQueryWriter implements QueryWriter
{
    /** @var array<string, string> join by alias */
    private array $joins = [];

    private int $below = 0;

    /** @param  ?AccessScope  $inSight who asks: a record at the end of a path that they do not see is as if it were not there */
    public function __construct(
        private readonly \DateTimeImmutable $now,
        private readonly \DateTimeZone $zone,
        private readonly ?AccessScope $inSight = null,
        private readonly string $alias = 't',
    ) {
    }

    /** The joins that the written conditions need, to stand behind "FROM the_table t". */
    public function joins(): string
    {
        return implode('', $this->joins);
    }

    public function today(): string
    {
        return $this->now->setTimezone($this->zone)->format('Y-m-d');
    }

    public function all(array $parts): Sql
    {
        return $this->joined($parts, ' AND ', 'TRUE');
    }

    public function any(array $parts): Sql
    {
        return $this->joined($parts, ' OR ', 'FALSE');
    }

    public function none(array $parts): Sql
    {
        $any = $this->any($parts);

        return new Sql("NOT COALESCE({$any->text}, FALSE)", $any->bindings);
    }

    public function never(): Sql
    {
        return new Sql('FALSE');
    }

    public function compare(Readable $left, Order $order, string|int|bool|Given $value): Sql
    {
        $column = $this->column($left);
        $right = $this->right($left->field(), $value);
        $text = $left->field()->type->isText() ? $this->folded($column->text) : $column->text;

        return new Sql("{$text} {$order->value} {$right->text}", [...$column->bindings, ...$right->bindings]);
    }

    public function oneOf(Readable $left, array $values): Sql
    {
        if ($values === []) {
            return $this->never();
        }
        $column = $this->column($left);

        return new Sql("{$column->text} IN (".implode(', ', array_fill(0, count($values), '?')).')', [...$column->bindings, ...$values]);
    }

    public function has(Readable $left, string $member): Sql
    {
        $column = $this->column($left);

        return new Sql("FIND_IN_SET(? COLLATE utf8mb4_nopad_bin, {$column->text}) > 0", [$member, ...$column->bindings]);
    }

    public function contains(Readable $left, string|Given $text): Sql
    {
        return $this->located($left, $text, '> 0');
    }

    public function startsWith(Readable $left, string|Given $text): Sql
    {
        return $this->located($left, $text, '= 1');
    }

    public function isEmpty(Readable $left): Sql
    {
        $column = $this->column($left);

        return new Sql("{$column->text} IS NULL", $column->bindings);
    }

    public function isUnder(Readable $left, int $person): Sql
    {
        $column = $this->column($left);
        $people = Person::tableName();
        $under = "WITH RECURSIVE below AS (SELECT id FROM {$people} WHERE manager_id = {$person}
            UNION SELECT p.id FROM {$people} p JOIN below b ON p.manager_id = b.id) SELECT id FROM below";

        return new Sql("{$column->text} IN ({$under})", $column->bindings);
    }

    public function formula(Formula $formula): Sql
    {
        return (new SqlFormula($this))->write($formula->term);
    }

    public function calendar(): WorkingCalendar
    {
        return (new CalendarStore)->calendar(null);
    }

    public function signOffStands(string $type, string $status, string $called): Sql
    {
        $signOffs = StoredSignOff::tableName();
        $named = $called === '' ? '' : ' AND line_key = ?';

        return new Sql(
            "EXISTS (SELECT 1 FROM `{$signOffs}` WHERE status = ? AND id = "
                ."(SELECT MAX(id) FROM `{$signOffs}` WHERE record_type = ? AND record_id = `{$this->alias}`.id{$named}))",
            $called === '' ? [$status, $type] : [$status, $type, $called],
        );
    }

    /** What a condition looks at: the column at the end of a path, with the joins that lead there remembered, or a query below. */
    public function column(Readable $left): Sql
    {
        if ($left instanceof Total) {
            return $this->total($left);
        }
        if (! $left instanceof Path) {
            throw new \LogicException('There is no column for '.$left::class.'.');
        }
        $alias = $this->alias;
        $columns = static fn (Field $field): string => $field->name;
        $hop = null;
        foreach ($left->hops as $hop) {
            $next = "{$alias}_{$hop->name}";
            $table = $hop->type === FieldType::Person ? Person::tableName() : StoredRecord::tableOf((string) $hop->target);
            $this->joins[$next] ??= " LEFT JOIN `{$table}` `{$next}` ON `{$next}`.id = `{$alias}`.`{$columns($hop)}`"
                .($hop->type === FieldType::Person ? '' : $this->andSeen((string) $hop->target, $next));
            $columns = $hop->type === FieldType::Person ? self::ofPerson(...) : $columns;
            $alias = $next;
        }

        $column = "`{$alias}`.`{$columns($left->field)}`";

        // What nobody has filled in of a person is kept as an empty text.
        return new Sql($hop?->type === FieldType::Person && $left->field->type->isText() ? "NULLIF({$column}, '')" : $column);
    }

    /** What is made of the children of one record, or, without a number, of each record of the query above. */
    public function total(Total $total, ?int $parent = null): Sql
    {
        $children = $total->children;
        $writer = new self($this->now, $this->zone, $this->inSight, "{$this->alias}_b".++$this->below);
        $where = Tree::where($children)?->query($writer) ?? new Sql('TRUE');
        $of = $total->of === null ? '' : "`{$writer->alias}`.`{$total->of->name}`";
        $made = match ($total->kind) {
            TotalKind::Count => 'COUNT(*)',
            TotalKind::Sum => "COALESCE(SUM({$of}), 0)",
            TotalKind::Latest => "MAX({$of})",
            TotalKind::Earliest => "MIN({$of})",
        };
        $table = StoredRecord::tableOf($children->type);
        $owner = match (true) {
            $parent !== null => (string) $parent,
            $total->from !== null => $this->column($total->from)->text,
            default => "`{$this->alias}`.id",
        };

        return new Sql(
            "(SELECT {$made} FROM `{$table}` `{$writer->alias}`{$writer->joins()}
                WHERE `{$writer->alias}`.`{$children->by}` = {$owner}{$this->andSeen($children->type, $writer->alias)} AND {$where->text})",
            $where->bindings,
        );
    }

    private function andSeen(string $type, string $alias): string
    {
        $where = $this->inSight?->where($type, $alias);

        return $where === null ? '' : " AND {$where}";
    }

    private function right(Field $field, string|int|bool|Given $value): Sql
    {
        return $value instanceof Given ? $value->query($this, $field) : $this->valueSide($value, $field);
    }

    public function now(): \DateTimeImmutable
    {
        return $this->now;
    }

    public function fieldSide(Path $path, Field $for): Sql
    {
        $column = $this->column($path);

        return $for->type->isText() ? new Sql($this->folded($column->text)) : $column;
    }

    public function valueSide(string|int|bool $value, Field $for): Sql
    {
        return match (true) {
            $for->type->isText() => new Sql('?', [Fold::text((string) $value)]),
            // Written as a literal: compared with a bound text, MariaDB would turn both into floating point.
            $for->type->isDecimal() => new Sql($this->decimal((string) $value)),
            default => new Sql('?', [Columns::column($for, $value) ?? '']),
        };
    }

    private static function ofPerson(Field $field): string
    {
        return $field->name === 'manager' ? 'manager_id' : $field->name;
    }

    public function personSide(?Route $route): Sql
    {
        if ($route === null) {
            return new Sql('NULL');
        }
        $found = is_int($route->start) ? new Sql((string) $route->start) : $this->column($route->start);
        for ($level = 0; $level < $route->levels; $level++) {
            $found = new Sql('(SELECT manager_id FROM '.Person::tableName()." WHERE id = {$found->text})", $found->bindings);
        }

        return $found;
    }

    private function located(Readable $left, string|Given $text, string $where): Sql
    {
        $column = $this->column($left);
        $part = $this->right($left->field(), $text);

        return new Sql("LOCATE({$part->text}, {$this->folded($column->text)}) {$where}", [...$part->bindings, ...$column->bindings]);
    }

    private function folded(string $column): string
    {
        return "LOWER({$column}) COLLATE utf8mb4_nopad_bin";
    }

    private function decimal(string $value): string
    {
        return preg_match('/^-?\d+(\.\d+)?$/', $value) === 1 ? $value : throw new \UnexpectedValueException(
            "{$value} is no decimal number.",
        );
    }

    /** @param  list<Sql>  $parts */
    private function joined(array $parts, string $with, string $none): Sql
    {
        if ($parts === []) {
            return new Sql($none);
        }

        return new Sql(
            '('.implode($with, array_map(static fn (Sql $part): string => $part->text, $parts)).')',
            array_merge(...array_map(static fn (Sql $part): array => $part->bindings, $parts)),
        );
    }
}
