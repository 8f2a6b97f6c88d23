<?php

declare(strict_types=1);

namespace App\Work\Timing;

use App\Models\Timing\SweepMark;
use App\Store\Rules\StoredRuleBook;
use Illuminate\Database\Eloquent\Builder;
use VividLedger\Rule\Rule;
use VividLedger\Rule\RuleStatus;
use VividLedger\Rule\Trigger\KeepsTimetable;
use VividLedger\Rule\Trigger\WaitsForDate;
use VividLedger\Rule\Trigger\WaitsForSilence;

/** When each rule that time sets off may find something next. What was reckoned once is kept until something has happened. */
final class Agenda
{
    /** @var array<int, ?\DateTimeImmutable> by rule */
    private array $known = [];

    public function __construct(
        private readonly StoredRuleBook $rules,
        private readonly DatesDue $dates,
        private readonly QuietRecords $quiet,
        private readonly RoundsDue $rounds,
    ) {
    }

    public function finderFor(Rule $rule): ?Finds
    {
        return match (true) {
            $rule->trigger instanceof WaitsForDate => $this->dates,
            $rule->trigger instanceof WaitsForSilence => $this->quiet,
            $rule->trigger instanceof KeepsTimetable => $this->rounds,
            default => null,
        };
    }

    /** Something happened, so anything may come earlier, or no more. */
    public function forget(): void
    {
        $this->known = [];
    }

    /** @return array<int, \DateTimeImmutable> when each rule in force may find something next, by rule */
    public function after(\DateTimeImmutable $at): array
    {
        $next = [];
        $swept = SweepMark::query()->with('rule')
            ->whereHas('rule', static fn (Builder $rules): Builder => $rules->where('status', RuleStatus::InForce))->get();
        foreach ($swept as $mark) {
            $id = $mark->rule_id;
            if (! array_key_exists($id, $this->known) || ($this->known[$id] !== null && $this->known[$id] <= $at)) {
                $this->known[$id] = $this->reckon($this->rules->page($id, (int) $mark->rule->page, $mark->rule->either_or), $at);
            }
            if ($this->known[$id] !== null) {
                $next[$id] = $this->known[$id];
            }
        }

        return $next;
    }

    private function reckon(?Rule $rule, \DateTimeImmutable $at): ?\DateTimeImmutable
    {
        try {
            return $rule === null ? null : $this->finderFor($rule)?->next($rule, $at);
        } catch (\Throwable $trouble) {
            // A rule whose next time cannot be reckoned keeps no other from its own.
            report($trouble);

            return null;
        }
    }
}
