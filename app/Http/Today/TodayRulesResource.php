<?php

declare(strict_types=1);

namespace App\Http\Today;

use App\Http\Ledger\EntryResource;
use App\Http\Rules\RuleSummary;
use App\Http\Timing\DayResource;
use OpenApi\Attributes as OA;

/** How the rules are doing: what they did since yesterday, and what did not go as it should. */
#[OA\Schema]
final readonly class TodayRulesResource
{
    /**
     * @param  list<RuleSummary>  $rules
     * @param  list<EntryResource>  $entries
     * @param  list<DayResource>  $days
     */
    public function __construct(
        #[OA\Property(description: 'Firings since midnight, also of rules that are paused or retired by now.')]
        public int $fired,
        #[OA\Property(description: 'Lines that should have been done by now, and are not.')]
        public int $behind,
        #[OA\Property(description: 'Lines left out in the last 24 hours because they came too late.')]
        public int $tooLate,
        #[OA\Property(description: 'Lines that could not be done and were set aside.')]
        public int $setAside,
        #[OA\Property(description: 'Chains stopped in the last 24 hours.')]
        public int $stopped,
        #[OA\Property(description: 'Messages that could not be delivered in the last 24 hours.')]
        public int $messagesFailed,
        #[OA\Property(description: 'Calls of other systems that failed in the last 24 hours.')]
        public int $callsFailed,
        #[OA\Property(items: new OA\Items(type: RuleSummary::class))]
        public array $rules,
        #[OA\Property(items: new OA\Items(type: EntryResource::class))]
        public array $entries,
        #[OA\Property(description: 'What is pencilled in for the days to come.', items: new OA\Items(type: DayResource::class))]
        public array $days,
    ) {
    }
}
