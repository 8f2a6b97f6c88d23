<?php

declare(strict_types=1);

namespace App\Store;

use Illuminate\Database\Connection;
use VividLedger\Engine\Facts;
use VividLedger\Engine\View;
use VividLedger\People\Person;
use VividLedger\Record\Record;
use VividLedger\Rule\Rule;
use VividLedger\Rule\Trigger\ComesRound;

/** The records that meet a rule now, put together for the person each of them leads to. */
final readonly class Gathering
{
    /** A longer list nobody reads. */
    private const MOST = 5000;

    public function __construct(private Connection $db, private SchemaStore $schemas)
    {
    }

    /** @return list<Record> */
    public function matching(Rule $rule, \DateTimeImmutable $now, \DateTimeZone $zone): array
    {
        $type = $this->schemas->schema()->types[$rule->on];
        $writer = new SqlQueryWriter($now, $zone);
        $where = $rule->condition->query($writer);
        $rows = $this->db->select('SELECT t.* FROM `'.TypeTable::name($type->name)."` t{$writer->joins()} WHERE {$where->text} ORDER BY t.id LIMIT ".self::MOST, $where->bindings);

        return array_map(static fn (object $row): Record => Columns::record($type, $row), array_values($rows));
    }

    /** @return array<int, array{Person, non-empty-list<Record>}> by the person's id */
    public function byPerson(Rule $rule, ComesRound $trigger, Facts $facts, \DateTimeZone $zone): array
    {
        $lists = [];
        foreach ($this->matching($rule, $facts->now(), $zone) as $record) {
            $person = $trigger->per?->find(new View($record, $facts))->person;
            if ($person !== null && $person->active) {
                $lists[$person->id] = [$person, [...($lists[$person->id][1] ?? []), $record]];
            }
        }

        return $lists;
    }
}
