<?php

declare(strict_types=1);

namespace App\Http\Setup;

use OpenApi\Attributes as OA;
use VividLedger\Record\Value;
use VividLedger\Time\WorkingWeek;

/** Until when today and this week last for the person who asks, by their working calendar, and when what is put there falls due. */
#[OA\Schema]
final readonly class WorkingWeekResource
{
    public function __construct(
        #[OA\Property(format: 'date-time')]
        public string $todayEnds,
        #[OA\Property(format: 'date-time')]
        public string $weekEnds,
        #[OA\Property(format: 'date-time')]
        public string $dueToday,
        #[OA\Property(format: 'date-time')]
        public string $dueThisWeek,
        #[OA\Property(format: 'date-time')]
        public string $dueNextWeek,
    ) {
    }

    public static function of(WorkingWeek $week): self
    {
        return new self(...array_map(Value::instantText(...), [
            $week->todayEnds, $week->weekEnds, $week->dueToday, $week->dueThisWeek, $week->dueNextWeek,
        ]));
    }
}
