<?php

declare(strict_types=1);

namespace App\Store\Sql;

use App\Models\Records\StoredRecord;
use App\Store\LedgerConnection;
use Illuminate\Support\Facades\DB;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Schema;

/**
 * The records that a transaction has locked, as it came upon them. One that loses to another, and is begun again, locks them all before
 * anything else, in the one order of locks: those that refer before those that are referred to, and then by id. Two that have met once
 * so wait for each other instead of meeting again. (Locks known from a first run and taken in order: Thomson et al., Calvin, SIGMOD 2012,
 * section 3.2.)
 */
final class LockPlan
{
    /** @var array<string, array<int, true>> ids by record type */
    private array $records = [];

    /** @var array<string, true> types of which any was locked for writing */
    private array $written = [];

    public static function current(): self
    {
        $connection = DB::connection();

        return $connection instanceof LedgerConnection ? $connection->lockPlan() : throw new \LogicException('Records lie in the ledger.');
    }

    public function note(string $type, int $id, string $lock): void
    {
        $this->records[$type][$id] = true;
        if ($lock !== Lock::READ) {
            $this->written[$type] = true;
        }
    }

    public function forget(): void
    {
        $this->records = $this->written = [];
    }

    /** Locks what was locked before. */
    public function take(Schema $schema): void
    {
        $rank = self::rank($schema);
        $records = array_intersect_key($this->records, $schema->types);
        uksort($records, static fn (string $one, string $other): int => [$rank[$one], $one] <=> [$rank[$other], $other]);
        foreach ($records as $type => $ids) {
            StoredRecord::rowsOf($type)->whereIn('id', array_keys($ids))->orderBy('id')
                ->lock(isset($this->written[$type]) ? Lock::WRITE : Lock::READ)->pluck('id');
        }
    }

    /** @return array<string, int> how far up each type stands: nothing refers from below to one of rank 0 */
    private static function rank(Schema $schema): array
    {
        $rank = array_fill_keys(array_keys($schema->types), 0);
        // As often as there are types is enough where none refers to itself in a circle, and an end where one does.
        foreach ($schema->types as $ignored) {
            foreach ($schema->types as $type) {
                foreach ($type->fields as $field) {
                    if ($field->type === FieldType::Reference && isset($rank[(string) $field->target]) && $field->target !== $type->name) {
                        $rank[(string) $field->target] = max($rank[(string) $field->target], min(count($rank), $rank[$type->name] + 1));
                    }
                }
            }
        }

        return $rank;
    }
}
