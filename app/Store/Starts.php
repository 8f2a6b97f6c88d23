<?php

declare(strict_types=1);

namespace App\Store;

use App\Work\HouseClock;
use Illuminate\Database\Connection;
use VividLedger\Engine\GuardState;
use VividLedger\Rule\Rule;

/** The records that match a rule when it is put in force: counted as done, or started, spread over hours. Leaving them takes no work at all. */
final readonly class Starts
{
    private const CHUNK = 500;

    public const MOST_HOURS = 720;

    public function __construct(
        private Connection $db,
        private SchemaStore $schemas,
        private Company $company,
        private HouseClock $clock,
    ) {
    }

    /**
     * @param  int  $entry  of putting it in force
     * @return int how many records it was done for
     */
    public function of(Rule $rule, Existing $existing, int $hours, int $entry): int
    {
        return match ($existing) {
            Existing::Leave => 0,
            Existing::Start => $this->start($rule, $hours, $entry),
            Existing::Count => $this->count($rule, $entry),
        };
    }

    private function start(Rule $rule, int $hours, int $entry): int
    {
        if ($hours < 0 || $hours > self::MOST_HOURS) {
            throw new Refused('invalid_values', 'Spread the start over 0 to '.self::MOST_HOURS.' hours.', 422, [['at' => '/hours', 'code' => 'out_of_range', 'message' => 'Spread the start over 0 to '.self::MOST_HOURS.' hours.']]);
        }
        $writer = new SqlQueryWriter($this->clock->now(), $this->company->zone());
        $where = $rule->condition->query($writer);
        $now = Columns::moment($this->clock->now());

        return $this->db->affectingStatement(
            "INSERT INTO scheduled_lines (kind, due_at, record_type, record_id, entry_id, rule_id, page, said, note)
            SELECT 'start', DATE_ADD(?, INTERVAL FLOOR((ROW_NUMBER() OVER (ORDER BY t.id) - 1) * ? / COUNT(*) OVER ()) SECOND), ?, t.id, ?, ?, ?, ?, ?
            FROM `".TypeTable::name($rule->on)."` t{$writer->joins()} WHERE {$where->text}",
            [$now, $hours * 3600, $rule->on, $entry, $rule->id, $rule->page, mb_substr($rule->name, 0, 200), "start:{$rule->page}", ...$where->bindings],
        );
    }

    private function count(Rule $rule, int $entry): int
    {
        $type = $this->schemas->schema()->types[$rule->on];
        $writer = new SqlQueryWriter($this->clock->now(), $this->company->zone());
        $where = $rule->condition->query($writer);
        $counted = 0;
        $after = 0;
        $at = Columns::moment($this->clock->now());
        do {
            $rows = $this->db->select('SELECT t.* FROM `'.TypeTable::name($rule->on)."` t{$writer->joins()} WHERE {$where->text} AND t.id > ? ORDER BY t.id LIMIT ".self::CHUNK, [...$where->bindings, $after]);
            $keys = [];
            $ids = array_map(static fn (object $row): int => (int) $row->id, $rows);
            [$states, $used] = $ids === [] ? [[], []] : GuardStore::states($this->db, $rule->id, $rule->on, $ids);
            foreach ($rows as $row) {
                $after = (int) $row->id;
                $state = $states[$after] ?? new GuardState;
                $key = $rule->guard->key(Columns::record($type, $row), "start:{$rule->page}", $state);
                if (! isset($used[$after]["{$state->epoch}:{$key}"])) {
                    $keys[] = ['rule_id' => $rule->id, 'record_type' => $rule->on, 'record_id' => $after, 'epoch' => $state->epoch, 'guard_key' => $key, 'entry_id' => $entry, 'at' => $at];
                }
            }
            Batch::insert($this->db, 'guard_keys', $keys);
            $counted += count($rows);
        } while (count($rows) === self::CHUNK);

        return $counted;
    }
}
