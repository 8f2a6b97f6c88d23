<?php

declare(strict_types=1);

namespace App\Store;

use App\Work\HouseClock;
use App\Work\LineWorker;
use Illuminate\Database\Connection;
use VividLedger\Rule\RuleStatus;

/** What people do to pencilled lines: hold them, let them go on, strike them out, or have them done now. Each is an entry that says who and why. */
final readonly class LineStore
{
    private const WHY_LENGTH = 200;

    public function __construct(
        private Connection $db,
        private HouseClock $clock,
        private LineWorker $worker,
    ) {
    }

    public function hold(int $id, string $why, int $by): void
    {
        $this->act(
            $id,
            ['pencilled'],
            'held',
            $why,
            $by,
            fn () => $this->db->update("UPDATE scheduled_lines SET status = 'held', held_code = 'by_hand' WHERE id = ?", [$id]),
        );
    }

    /** What fell due meanwhile is done at the next opportunity, unless it is too late by then. */
    public function resume(int $id, string $why, int $by): void
    {
        $this->act($id, ['held'], 'resumed', $why, $by, function (object $row) use ($id): void {
            if ($row->rule_id !== null && $this->db->scalar('SELECT status FROM rules WHERE id = ? LOCK IN SHARE MODE', [$row->rule_id]) === RuleStatus::Paused->value) {
                throw new Refused('rule_paused', 'Its rule is paused. Put the rule in force again, and its lines go on with it.', 409);
            }
            $this->db->update("UPDATE scheduled_lines SET status = 'pencilled', held_code = NULL WHERE id = ?", [$id]);
        });
    }

    public function strike(int $id, string $why, int $by): void
    {
        $this->act($id, ['pencilled', 'held', 'failed'], 'struck', $why, $by, function (object $row) use ($id, $why): void {
            $this->db->update(
                "UPDATE scheduled_lines SET status = 'struck', struck_code = 'by_hand', struck_because = ? WHERE id = ?",
                [mb_substr($why, 0, 200), $id],
            );
            if ($row->run_id !== null) {
                LineRows::close($this->db, [(int) $row->run_id]);
            }
        });
    }

    /** Done now whatever the hour; what ends the rule and quiet hours are for the person to mind. Its own condition holds all the same. */
    public function now(int $id, string $why, int $by): void
    {
        $this->db->transaction(function () use ($id, $why, $by): void {
            $row = $this->locked($id, ['pencilled', 'held']);
            $this->worker->performNow($row, new Actor($by), ['why' => $this->reason($why), 'byHand' => true]);
        }, 3);
    }

    /** A line that was set aside because it could not be done is tried once more. */
    public function again(int $id, int $by): void
    {
        $this->act($id, ['failed'], 'resumed', 'tried again', $by, function (object $row) use ($id): void {
            $this->db->update("UPDATE scheduled_lines SET status = 'pencilled', struck_because = NULL WHERE id = ?", [$id]);
            if ($row->run_id !== null) {
                $this->db->update("UPDATE rule_runs SET status = 'in_play' WHERE id = ?", [$row->run_id]);
            }
        });
    }

    /**
     * @param  list<string>  $from  states it may be in
     * @param  \Closure(object): mixed  $do
     */
    private function act(int $id, array $from, string $kind, string $why, int $by, \Closure $do): void
    {
        $reason = $this->reason($why);
        $this->db->transaction(function () use ($id, $from, $kind, $reason, $by, $do): void {
            $row = $this->locked($id, $from);
            $do($row);
            Batch::insert($this->db, 'entries', [[
                'kind' => $kind, 'at' => Columns::moment($this->clock->now()), 'actor_id' => $by, 'record_type' => $row->record_type, 'record_id' => $row->record_id,
                'rule_id' => $row->rule_id, 'page' => $row->page, 'task_id' => $row->task_id, 'cause_id' => $row->entry_id ?: null,
                'data' => json_encode(['because' => $reason, 'lines' => [['said' => $row->said, 'due' => Columns::iso($row->due_at)]]], JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE),
            ]]);
        }, 3);
    }

    /** @param  list<string>  $states */
    private function locked(int $id, array $states): object
    {
        // The record first, as every save does, so that the two never wait for each other.
        $row = $this->db->selectOne('SELECT * FROM scheduled_lines WHERE id = ?', [$id]) ?? throw new Refused('not_found', "There is no line {$id}.", 404);
        $this->db->select('SELECT id FROM `'.TypeTable::name($row->record_type).'` WHERE id = ? FOR UPDATE', [$row->record_id]);
        $row = $this->db->selectOne('SELECT * FROM scheduled_lines WHERE id = ? FOR UPDATE', [$id]) ?? throw new Refused('not_found', "There is no line {$id}.", 404);
        if (! in_array($row->status, $states, true)) {
            throw new Refused('wrong_state', match ($row->status) {
                'inked' => 'This line is in ink already.',
                'struck', 'late', 'failed' => 'This line was struck out already.',
                'held' => 'This line is held already.',
                default => 'This line is not held.',
            }, 409);
        }

        return $row;
    }

    private function reason(string $why): string
    {
        $why = trim($why);
        if ($why === '' || mb_strlen($why) > self::WHY_LENGTH) {
            throw new Refused('invalid_values', $why === '' ? 'Say why. The ledger keeps it.' : 'A reason has at most '.self::WHY_LENGTH.' characters.', 422, [['at' => '/why', 'code' => 'missing', 'message' => 'Say why. The ledger keeps it.']]);
        }

        return $why;
    }
}
