<?php

declare(strict_types=1);

namespace App\Store;

use App\Work\HouseClock;
use Illuminate\Database\Connection;
use VividLedger\Engine\GuardState;

/** What repeat guards have let pass for a record, and making them ready again by hand. */
final readonly class GuardStore
{
    public function __construct(
        private Connection $db,
        private HouseClock $clock,
    ) {
    }

    /** @param  ?int  $before  only what was there before an entry */
    public static function state(Connection $db, int $rule, string $type, int $record, ?int $before = null): GuardState
    {
        $until = $before === null ? '' : " AND entry_id < {$before}";
        $row = $db->selectOne(
            "SELECT e.epoch, COUNT(k.guard_key) AS n, MAX(k.at) AS latest
            FROM (SELECT COALESCE(MAX(epoch), 0) AS epoch FROM guard_resets WHERE rule_id = ? AND record_type = ? AND record_id = ?{$until}) e
            LEFT JOIN (SELECT epoch, guard_key, at FROM guard_keys WHERE rule_id = ? AND record_type = ? AND record_id = ?{$until}) k ON k.epoch = e.epoch GROUP BY e.epoch",
            [$rule, $type, $record, $rule, $type, $record],
        );

        return $row === null || (int) $row->n === 0 ? new GuardState((int) ($row->epoch ?? 0))
            : new GuardState((int) $row->epoch, (int) $row->n, new \DateTimeImmutable($row->latest.'Z'));
    }

    /**
     * The same for many records, with the keys they have used.
     *
     * @param  list<int>  $ids
     * @return array{array<int, GuardState>, array<int, array<string, true>>} by record
     */
    public static function states(Connection $db, int $rule, string $type, array $ids): array
    {
        $list = implode(', ', $ids);
        $epochs = [];
        foreach ($db->select("SELECT record_id, MAX(epoch) AS epoch FROM guard_resets WHERE rule_id = ? AND record_type = ? AND record_id IN ({$list}) GROUP BY record_id", [$rule, $type]) as $row) {
            $epochs[(int) $row->record_id] = (int) $row->epoch;
        }
        $states = array_map(static fn (int $epoch): GuardState => new GuardState($epoch), $epochs);
        $keys = [];
        foreach ($db->select("SELECT record_id, epoch, guard_key, at FROM guard_keys WHERE rule_id = ? AND record_type = ? AND record_id IN ({$list}) ORDER BY at", [$rule, $type]) as $row) {
            $id = (int) $row->record_id;
            $keys[$id]["{$row->epoch}:{$row->guard_key}"] = true;
            if ((int) $row->epoch === ($epochs[$id] ?? 0)) {
                $states[$id] = new GuardState((int) $row->epoch, ($states[$id]->count ?? 0) + 1, new \DateTimeImmutable($row->at.'Z'));
            }
        }

        return [$states, $keys];
    }

    /** Makes a used guard ready again, whoever wants it and why on record. */
    public function reset(int $rule, int $page, string $type, int $record, string $why, int $by): void
    {
        $this->db->transaction(function () use ($rule, $page, $type, $record, $why, $by): void {
            // The record's row keeps a save of it from using the guard at the same time.
            $this->db->selectOne('SELECT id FROM `'.TypeTable::name($type).'` WHERE id = ? FOR UPDATE', [$record]);
            $state = self::state($this->db, $rule, $type, $record);
            if ($state->count === 0) {
                throw new Refused('not_used', 'This guard has not been used, so there is nothing to make ready again.', 409);
            }
            [$entry] = Batch::insertForIds($this->db, 'entries', [[
                'kind' => 'ready_again', 'at' => Columns::moment($this->clock->now()), 'actor_id' => $by, 'via' => 'person', 'record_type' => $type, 'record_id' => $record,
                'rule_id' => $rule, 'page' => $page, 'data' => json_encode(['why' => null, 'reason' => mb_substr(trim($why), 0, 200)], JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE),
            ]]);
            Batch::insert($this->db, 'guard_resets', [['rule_id' => $rule, 'record_type' => $type, 'record_id' => $record, 'epoch' => $state->epoch + 1, 'entry_id' => $entry]]);
        });
    }
}
