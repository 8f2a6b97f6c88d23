<?php

declare(strict_types=1);

namespace App\Work\Timing;

use App\Models\Access\HeldCode;
use App\Models\Ledger\Entry;
use App\Models\Records\StoredRecord;
use App\Models\Rules\StoredRule;
use App\Models\Timing\LineStatus;
use App\Models\Timing\RuleRun;
use App\Models\Timing\RunStatus;
use App\Models\Timing\ScheduledLine;
use App\Store\Actor;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\RefusedFor;
use App\Store\Sql\Batch;
use Illuminate\Database\Connection;
use VividLedger\Engine\StruckCode;
use VividLedger\Rule\RuleStatus;
use VividLedger\Words\Words;

/**
 * What people do to pencilled lines: hold them, let them go on, strike them out, or have them done now. Each is an entry that says who and
 * why.
 */
final readonly class LinesByHand
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
        $this->act($id, [LineStatus::Pencilled], 'held', $why, $by, static function (ScheduledLine $line): void {
            $line->update(['status' => LineStatus::Held, 'held_code' => HeldCode::ByHand]);
        });
    }

    /** What fell due meanwhile is done at the next opportunity, unless it is too late by then. */
    public function resume(int $id, string $why, int $by): void
    {
        $this->act($id, [LineStatus::Held], 'resumed', $why, $by, static function (ScheduledLine $line): void {
            if ($line->rule_id !== null && StoredRule::query()->sharedLock()->find($line->rule_id)?->status === RuleStatus::Paused) {
                throw new DomainError(
                    'rule_paused',
                    Words::say('Its rule is paused. Put the rule in force again, and its lines go on with it.'),
                    RefusedFor::Conflict,
                );
            }
            $line->update(['status' => LineStatus::Pencilled, 'held_code' => null]);
        });
    }

    public function strike(int $id, string $why, int $by): void
    {
        $from = [LineStatus::Pencilled, LineStatus::Held, LineStatus::Failed];
        $this->act($id, $from, 'struck', $why, $by, static function (ScheduledLine $line) use ($why): void {
            $line->update(ScheduledLine::struck(StruckCode::ByHand, $why));
            if ($line->run_id !== null) {
                RuleRun::close([$line->run_id]);
            }
        });
    }

    /** Done now whatever the hour; what ends the rule and quiet hours are for the person to mind. Its own condition holds all the same. */
    public function now(int $id, string $why, int $by): void
    {
        $this->db->transaction(function () use ($id, $why, $by): void {
            $line = $this->locked($id, [LineStatus::Pencilled, LineStatus::Held]);
            $this->worker->performNow(DueRows::one($line->id), new Actor($by), ['why' => $this->reason($why), 'byHand' => true]);
        });
    }

    /** A line that was set aside because it could not be done is tried once more. */
    public function again(int $id, int $by): void
    {
        $this->act($id, [LineStatus::Failed], 'resumed', Words::say('tried again'), $by, static function (ScheduledLine $line): void {
            $line->update(['status' => LineStatus::Pencilled, 'struck_because' => null]);
            RuleRun::query()->whereKey($line->run_id)->update(['status' => RunStatus::InPlay]);
        });
    }

    /**
     * @param  list<LineStatus>  $from  states it may be in
     * @param  \Closure(ScheduledLine): void  $do
     */
    private function act(int $id, array $from, string $kind, string $why, int $by, \Closure $do): void
    {
        $reason = $this->reason($why);
        $this->db->transaction(function () use ($id, $from, $kind, $reason, $by, $do): void {
            $line = $this->locked($id, $from);
            $do($line);
            Batch::insert(Entry::class, [Entry::row($kind, $this->clock->now(), ['because' => $reason, 'lines' => [$line->told()]], [
                'actor_id' => $by, 'record_type' => $line->record_type, 'record_id' => $line->record_id, 'rule_id' => $line->rule_id,
                'page' => $line->page, 'task_id' => $line->task_id, 'cause_id' => $line->entry_id ?: null,
            ])]);
        });
    }

    /** @param  list<LineStatus>  $states */
    private function locked(int $id, array $states): ScheduledLine
    {
        $missing = static fn (): DomainError => DomainError::missing(Words::say('There is no line {id}.', id: $id));
        // The record first, as every save does, so that the two never wait for each other.
        $line = ScheduledLine::query()->find($id) ?? throw $missing();
        StoredRecord::rowsOf($line->record_type)->where('id', $line->record_id)->lockForUpdate()->first(['id']);
        $line = ScheduledLine::query()->lockForUpdate()->find($id) ?? throw $missing();
        if (! in_array($line->status, $states, true)) {
            throw new DomainError('wrong_state', match ($line->status) {
                LineStatus::Inked => Words::say('This line is in ink already.'),
                LineStatus::Struck, LineStatus::Late, LineStatus::Failed => Words::say('This line was struck out already.'),
                LineStatus::Held => Words::say('This line is held already.'),
                LineStatus::Pencilled => Words::say('This line is not held.'),
            }, RefusedFor::Conflict);
        }

        return $line;
    }

    private function reason(string $why): string
    {
        $why = trim($why);
        if ($why === '' || mb_strlen($why) > self::WHY_LENGTH) {
            $problem = ['at' => '/why', 'code' => 'missing', 'message' => Words::say('Say why. The ledger keeps it.')];
            $message = $why === '' ? $problem['message'] : Words::say(
                'A reason has at most {whylength} characters.',
                whylength: self::WHY_LENGTH,
            );
            throw new DomainError('invalid_values', $message, RefusedFor::Invalid, [$problem]);
        }

        return $why;
    }
}
