<?php

declare(strict_types=1);

namespace App\Store\Timing;

use App\Models\Access\HeldCode;
use App\Models\Ledger\Entry;
use App\Models\Tasks\TaskStatus;
use App\Models\Timing\LineStatus;
use App\Models\Timing\RuleRun;
use App\Models\Timing\RunStatus;
use App\Models\Timing\ScheduledLine;
use App\Store\Actor;
use App\Store\SignOffs\SignOffRepository;
use App\Store\Slips\SlipRepository;
use App\Store\Sql\Batch;
use Illuminate\Database\Eloquent\Builder;
use VividLedger\Engine\StruckCode;
use VividLedger\Record\Record;
use VividLedger\Rule\RuleStatus;

/**
 * What is pencilled in for a record that is deleted is struck out; brought back, its runs are taken up where they stood. Each is
 * an entry. A line that fell due meanwhile is done, or left out by its own "too late after".
 */
final readonly class RecordRuns
{
    private const STRUCK_OUT = 'the record was deleted';

    public function __construct(private SignOffRepository $signOffs, private SlipRepository $slips)
    {
    }

    public function strikeOut(Record $record, Actor $actor, \DateTimeImmutable $at, int $cause): void
    {
        $lines = static fn (): Builder => ScheduledLine::query()->about($record->type, $record->id)->toCome();
        $this->tell($record, $lines(), 'struck', self::STRUCK_OUT, $actor, $at, $cause);
        // What a person or a paused rule held back stays marked, and is held again when it comes back.
        $lines()->update(ScheduledLine::struck(StruckCode::RecordDeleted, self::STRUCK_OUT));
        RuleRun::query()->about($record->type, $record->id)->inPlay()->update(['status' => RunStatus::Over]);
        $this->signOffs->endOf($record->type, $record->id, $actor, $cause);
        $this->slips->endOf($record->type, $record->id, $actor, $cause);
    }

    public function takeUp(Record $record, Actor $actor, \DateTimeImmutable $at, int $cause): void
    {
        // A rule that was retired meanwhile goes on nowhere, and a task that is done falls due no more.
        $lines = static fn (): Builder => ScheduledLine::query()->about($record->type, $record->id)
            ->where('status', LineStatus::Struck)->where('struck_code', StruckCode::RecordDeleted)
            ->whereDoesntHave('rule', static fn (Builder $rules): Builder => $rules->where('status', RuleStatus::Retired))
            ->where(static fn (Builder $either): Builder => $either->whereNull('task_id')
                ->orWhereHas('task', static fn (Builder $tasks): Builder => $tasks->where('status', TaskStatus::Open)));
        $this->tell($record, $lines(), 'resumed', 'the record was brought back', $actor, $at, $cause);
        $back = ['struck_because' => null, 'struck_code' => null];
        // One that is paused goes on with the rest of its rule; what somebody holds is held again.
        $lines()->whereNull('held_code')->whereHas(
            'rule',
            static fn (Builder $rules): Builder => $rules->where('status', RuleStatus::Paused),
        )
            ->update(['status' => LineStatus::Held, 'held_code' => HeldCode::RulePaused] + $back);
        $lines()->whereNotNull('held_code')->update(['status' => LineStatus::Held] + $back);
        $lines()->update(['status' => LineStatus::Pencilled] + $back);
        RuleRun::takeUp(RuleRun::query()->about($record->type, $record->id)->where('status', RunStatus::Over));
    }

    /**
     * An entry for each rule whose lines are struck out or come back.
     *
     * @param  Builder<ScheduledLine>  $lines
     */
    private function tell(
        Record $record, Builder $lines, string $kind, string $because, Actor $actor, \DateTimeImmutable $at, int $cause,
    ): void {
        $byRule = [];
        foreach ($lines->whereNull('task_id')->orderBy('id')->lockForUpdate()->get() as $line) {
            $byRule["{$line->rule_id} {$line->page}"][] = $line;
        }
        $entries = [];
        foreach ($byRule as $rows) {
            usort($rows, static fn (ScheduledLine $one, ScheduledLine $other): int => [$one->due_at === null, $one->due_at, $one->id]
                <=> [$other->due_at === null, $other->due_at, $other->id]);
            $told = array_map(static fn (ScheduledLine $line): array => $line->told(), $rows);
            $entries[] = Entry::row($kind, $at, ['because' => $because, 'lines' => $told], [
                'actor_id' => $actor->personId, 'via' => $actor->via, 'record_type' => $record->type, 'record_id' => $record->id,
                'version' => $record->version, 'rule_id' => $rows[0]->rule_id, 'page' => $rows[0]->page, 'cause_id' => $cause,
            ]);
        }
        Batch::insert(Entry::class, $entries);
    }
}
