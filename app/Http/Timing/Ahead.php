<?php

declare(strict_types=1);

namespace App\Http\Timing;

use App\Http\Ledger\SeenEntries;
use App\Models\Access\HeldCode;
use App\Models\Columns;
use App\Models\Timing\LineStatus;
use App\Models\Timing\ScheduledLine;
use App\Store\Access\AccessScope;
use App\Store\Access\SeenTexts;
use App\Store\People\PeopleStore;
use App\Store\Types\SchemaStore;
use Illuminate\Database\Eloquent\Builder;
use VividLedger\Record\Value;
use VividLedger\Words\Words;

/** Reads what is pencilled in. */
final readonly class Ahead
{
    private const MOST = 200;

    public function __construct(
        private SchemaStore $schemas,
        private PeopleStore $names,
        private AccessScope $inSight,
        private SeenEntries $seen,
        private SeenTexts $texts,
        private OwnLines $own,
    ) {
    }

    /** @return list<AheadResource> the furthest first, so that the next stands right above the now line */
    public function ofRecord(string $type, int $id): array
    {
        $about = ScheduledLine::query()->toCome()->where(static fn (Builder $either): Builder => $either
            ->where(static fn (Builder $own): Builder => $own->where('record_type', $type)->where('record_id', $id))
            ->orWhereHas('task', static fn (Builder $task): Builder => $task->where('about_type', $type)->where('about_id', $id)));
        // Those without a time yet stand furthest off.
        $resources = $this->read($about->latest('due_at')->latest('id'));
        $isOpen = static fn (AheadResource $resource): bool => $resource->due === null;

        return [
            ...array_values(array_filter($resources, $isOpen)),
            ...array_values(array_filter($resources, static fn (AheadResource $resource): bool => ! $isOpen($resource))),
        ];
    }

    /**
     * @param  ?int  $person  whose own it has to be; null for all that whoever asks may see
     * @return list<AheadResource> what is pencilled in for a day, the earliest first
     */
    public function ofDay(\DateTimeImmutable $from, ?int $person = null): array
    {
        $lines = ScheduledLine::query();
        $theirs = $person === null ? $lines : $this->own->of($person, $lines);

        return $this->read($theirs->where('status', LineStatus::Pencilled)->where('due_at', '>=', Columns::moment($from))
            ->where('due_at', '<', Columns::moment($from->modify('+1 day')))->orderBy('due_at')->orderBy('id'));
    }

    /** @return list<AheadResource> what could not be done, the latest first */
    public function setAside(): array
    {
        return $this->read(ScheduledLine::query()->where('status', LineStatus::Failed)->latest('id'));
    }

    private static function lead(string $kind): string
    {
        return match ($kind) {
            'task_due' => Words::say('Task falls due:'),
            'start' => Words::say('The rule starts:'),
            'round' => Words::say('The rule looks at it:'),
            'escalate' => Words::say('Escalate:'),
            default => '',
        };
    }

    /** As it reads; of a rule that reads or writes what is hidden from them, only that there is a line. */
    public function said(ScheduledLine $line): string
    {
        return match (true) {
            $line->task !== null => $this->texts->shown($line->task->title, $line->task->tells),
            $line->rule_id === null || $this->seen->mayReadRule($line->rule_id, (int) $line->page, $line->record_type) => $line->said,
            default => SeenTexts::withheld(),
        };
    }

    /**
     * @param  Builder<ScheduledLine>  $lines
     * @return list<AheadResource>
     */
    private function read(Builder $lines): array
    {
        $rows = $this->inSight->about($lines)->with(['task.assignee', 'task.rule', 'rule'])->limit(self::MOST)->get();
        foreach ($rows->groupBy('record_type') as $type => $of) {
            $this->names->rememberTitles($type, array_values($of->pluck('record_id')->all()));
        }

        return array_values($rows->map(function (ScheduledLine $line): AheadResource {
            $number = $this->schemas->schema()->type($line->record_type)?->numberOf($line->record_id) ?? '';
            $rule = $line->rule ?? $line->task?->rule;

            return new AheadResource(
                id: $line->id, kind: $line->kind, status: $line->status->value,
                due: $line->due_at === null ? null : Value::instantText($line->due_at),
                meant: $line->meant_at === null ? null : Value::instantText($line->meant_at), lead: self::lead($line->kind),
                title: $this->said($line), person: $line->task?->assignee?->name, rule: $rule?->id, ruleName: $rule?->name,
                task: $line->task_id,
                note: match (true) {
                    $line->held_code === HeldCode::RulePaused => Words::say('the rule is paused'),
                    $line->held_code === HeldCode::Locked => Words::say('the record is locked'),
                    $line->status === LineStatus::Failed => Words::say((string) $line->struck_because),
                    default => $line->note,
                },
                recordType: $line->record_type, recordId: $line->record_id, recordNumber: $number,
                recordTitle: $this->names->title($line->record_type, $line->record_id) ?? $number,
            );
        })->all());
    }
}
