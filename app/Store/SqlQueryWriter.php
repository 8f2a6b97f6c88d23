<?php

declare(strict_types=1);

namespace App\Store;

use VividLedger\Condition\Order;
use VividLedger\Condition\QueryWriter;
use VividLedger\Record\Fold;
use VividLedger\Schema\Path;

/**
 * Writes conditions as SQL for MariaDB over a record type's table, aliased "t". SQL's NULL counts as false: that is so
 * at the end of a WHERE by itself, and below none() it is said with COALESCE.
 *
 * @implements QueryWriter<Sql>
 */
final class SqlQueryWriter implements QueryWriter
{
    /** @var array<string, string> join by alias */
    private array $joins = [];

    /** The joins that the written conditions need, to stand behind "FROM the_table t". */
    public function joins(): string
    {
        return implode('', $this->joins);
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

    public function compare(Path $path, Order $order, string|int|bool $value): Sql
    {
        $column = $this->column($path);
        if ($path->field->type->isText()) {
            return new Sql("{$this->folded($column)} {$order->value} ?", [Fold::text((string) $value)]);
        }
        if ($path->field->type->isDecimal()) {
            // Written as a literal: compared with a bound text, MariaDB would turn both into floating point.
            return new Sql("{$column} {$order->value} {$this->decimal((string) $value)}");
        }

        return new Sql("{$column} {$order->value} ?", [Columns::column($path->field, $value) ?? '']);
    }

    public function oneOf(Path $path, array $values): Sql
    {
        return $values === [] ? new Sql('FALSE') : new Sql($this->column($path).' IN ('.implode(', ', array_fill(0, count($values), '?')).')', $values);
    }

    public function contains(Path $path, string $text): Sql
    {
        return new Sql("LOCATE(?, {$this->folded($this->column($path))}) > 0", [Fold::text($text)]);
    }

    public function startsWith(Path $path, string $text): Sql
    {
        return new Sql("LOCATE(?, {$this->folded($this->column($path))}) = 1", [Fold::text($text)]);
    }

    public function isEmpty(Path $path): Sql
    {
        return new Sql($this->column($path).' IS NULL');
    }

    /** The column at the end of a path; the joins that lead there are remembered. */
    public function column(Path $path): string
    {
        $alias = 't';
        foreach ($path->hops as $hop) {
            $next = "{$alias}_{$hop->name}";
            $this->joins[$next] ??= ' LEFT JOIN `'.TypeTable::name((string) $hop->target)."` `{$next}` ON `{$next}`.id = `{$alias}`.`{$hop->name}`";
            $alias = $next;
        }

        return "`{$alias}`.`{$path->field->name}`";
    }

    private function folded(string $column): string
    {
        return "LOWER({$column}) COLLATE utf8mb4_nopad_bin";
    }

    private function decimal(string $value): string
    {
        return preg_match('/^-?\d+(\.\d+)?$/', $value) === 1 ? $value : throw new \UnexpectedValueException("{$value} is no decimal number.");
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
