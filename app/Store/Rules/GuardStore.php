<?php

declare(strict_types=1);

namespace App\Store\Rules;

use App\Models\Columns;
use App\Models\Ledger\Entry;
use App\Models\Records\StoredRecord;
use App\Models\Rules\GuardKey;
use App\Models\Rules\GuardReset;
use App\Models\Rules\StoredRule;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\RefusedFor;
use App\Store\Sql\Batch;
use Illuminate\Database\Connection;
use Illuminate\Database\Query\Builder;
use VividLedger\Facts\GuardState;
use VividLedger\Words\Words;

/** What repeat guards have let pass for a record, and making them ready again by hand. */
final readonly class GuardStore
{
    public function __construct(
        private Connection $db,
        private HouseClock $clock,
    ) {
    }

    public static function state(int $rule, string $type, int $record): GuardState
    {
        $of = static fn (Builder $rows): Builder => $rows->where('rule_id', $rule)->where('record_type', $type)
            ->where('record_id', $record);
        $keys = $of(GuardKey::rows())->get(['epoch', 'at']);
        $epoch = (int) $of(GuardReset::rows())->max('epoch');
        $used = $keys->where('epoch', $epoch);

        return $used->isEmpty() ? new GuardState($epoch) : new GuardState(
            $epoch,
            $used->count(),
            Columns::instant((string) $used->max('at')),
        );
    }

    /**
     * The same for many records, with the keys they have used.
     *
     * @param  list<int>  $ids
     * @return array{array<int, GuardState>, array<int, array<string, true>>} by record
     */
    public static function states(int $rule, string $type, array $ids): array
    {
        return self::folded('record_id', static fn (Builder $rows): Builder => $rows->where('rule_id', $rule)
            ->where('record_type', $type)->whereIn('record_id', $ids));
    }

    /**
     * The same for all rules on one record.
     *
     * @param  ?int  $before  only what was there before an entry
     * @return array{array<int, GuardState>, array<int, array<string, true>>} by rule
     */
    public static function ofRecord(string $type, int $record, ?int $before = null): array
    {
        return self::folded('rule_id', static fn (Builder $rows): Builder => $rows->where('record_type', $type)
            ->where('record_id', $record)
            ->when($before !== null, static fn (Builder $rows): Builder => $rows->where('entry_id', '<', $before)));
    }

    /**
     * @param  \Closure(Builder): Builder  $of
     * @return array{array<int, GuardState>, array<int, array<string, true>>} by a column
     */
    private static function folded(string $by, \Closure $of): array
    {
        $epochs = [];
        foreach ($of(GuardReset::rows())->get([$by, 'epoch']) as $reset) {
            $epochs[(int) $reset->$by] = max($epochs[(int) $reset->$by] ?? 0, (int) $reset->epoch);
        }
        $states = array_map(static fn (int $epoch): GuardState => new GuardState($epoch), $epochs);
        $keys = [];
        foreach ($of(GuardKey::rows())->orderBy('at')->get([$by, 'epoch', 'guard_key', 'at']) as $row) {
            $id = (int) $row->$by;
            $keys[$id]["{$row->epoch}:{$row->guard_key}"] = true;
            if ((int) $row->epoch === ($epochs[$id] ?? 0)) {
                $states[$id] = new GuardState((int) $row->epoch, ($states[$id]->count ?? 0) + 1, Columns::instant($row->at));
            }
        }

        return [$states, $keys];
    }

    /** Makes a used guard ready again, whoever wants it and why on record. */
    public function reset(int $rule, string $type, int $record, string $why, int $by): void
    {
        $this->db->transaction(function () use ($rule, $type, $record, $why, $by): void {
            // The record's row keeps a save of it from using the guard at the same time.
            StoredRecord::rowsOf($type)->where('id', $record)->lockForUpdate()->first(['id']);
            $state = self::state($rule, $type, $record);
            if ($state->count === 0) {
                throw new DomainError(
                    'not_used',
                    Words::say('This guard has not been used, so there is nothing to make ready again.'),
                    RefusedFor::Conflict,
                );
            }
            $page = StoredRule::query()->whereKey($rule)->value('page') ?? 0;
            $data = ['why' => null, 'reason' => mb_substr(trim($why), 0, 200)];
            [$entry] = Batch::insertForIds(Entry::class, [Entry::row('ready_again', $this->clock->now(), $data, [
                'actor_id' => $by, 'record_type' => $type, 'record_id' => $record, 'rule_id' => $rule, 'page' => $page,
            ])]);
            GuardReset::rows()->insert([
                'rule_id' => $rule, 'record_type' => $type, 'record_id' => $record, 'epoch' => $state->epoch + 1, 'entry_id' => $entry,
            ]);
        });
    }
}
