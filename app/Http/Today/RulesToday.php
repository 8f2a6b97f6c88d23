<?php

declare(strict_types=1);

namespace App\Http\Today;

use App\Http\Ledger\Entries;
use App\Http\Rules\RuleResources;
use App\Http\Timing\DayResource;
use App\Models\Columns;
use App\Models\Ledger\Entry;
use App\Models\Outbound\CallStatus;
use App\Models\Outbound\MessageStatus;
use App\Models\Outbound\StoredCall;
use App\Models\Outbound\StoredMessage;
use App\Models\Timing\LineStatus;
use App\Models\Timing\ScheduledLine;
use App\Store\HouseClock;
use VividLedger\Rule\RuleStatus;

/** Reckons how the rules are doing. */
final readonly class RulesToday
{
    private const ENTRIES = 8;

    /** A line that is a little over its time is about to be done. */
    private const PATIENCE = '-5 minutes';

    public function __construct(private HouseClock $clock, private RuleResources $rules, private Entries $entries)
    {
    }

    /**
     * @param  \DateTimeImmutable  $midnight  at which the day began
     * @param  list<DayResource>  $days  what is pencilled in
     */
    public function resource(\DateTimeImmutable $midnight, array $days): TodayRulesResource
    {
        $now = $this->clock->now();
        $since = Columns::moment($now->modify('-1 day'));
        $kinds = Entry::rows()->whereIn('kind', ['too_late', 'stopped'])->where('at', '>=', $since)
            ->groupBy('kind')->selectRaw('kind, COUNT(*) AS n')->pluck('n', 'kind');
        $of = static fn (string $kind): int => (int) ($kinds[$kind] ?? 0);

        return new TodayRulesResource(
            fired: Entry::rows()->where('kind', 'fired')->where('at', '>=', Columns::moment($midnight))->count(),
            behind: ScheduledLine::query()->where('status', LineStatus::Pencilled)
                ->where('due_at', '<', Columns::moment($now->modify(self::PATIENCE)))->count(),
            tooLate: $of('too_late'), setAside: ScheduledLine::query()->where('status', LineStatus::Failed)->count(),
            stopped: $of('stopped'),
            messagesFailed: StoredMessage::query()->where('status', MessageStatus::Failed)->where('created_at', '>=', $since)->count(),
            callsFailed: StoredCall::query()->where('status', CallStatus::Failed)->where('made_at', '>=', $since)->count(),
            rules: $this->rules->all(RuleStatus::InForce), entries: $this->entries->latest(self::ENTRIES, false), days: $days,
        );
    }
}
