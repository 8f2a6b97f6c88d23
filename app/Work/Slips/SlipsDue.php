<?php

declare(strict_types=1);

namespace App\Work\Slips;

use App\Models\Columns;
use App\Models\Slips\StoredSlip;
use App\Store\HouseClock;
use App\Store\Slips\SlipService;
use App\Store\Sql\FaultIsolation;

/** Tends the slips whose time has come. Each is a transaction of its own; what another worker is at waits for it. */
final readonly class SlipsDue
{
    private const MOST = 200;

    public function __construct(private HouseClock $clock, private SlipService $desk, private FaultIsolation $isolation)
    {
    }

    /** @return int how many were tended */
    public function work(): int
    {
        $due = Columns::ints(StoredSlip::query()->where('wakes_at', '<=', Columns::moment($this->clock->now()))
            ->orderBy('wakes_at')->orderBy('id')->limit(self::MOST)->pluck('id'));
        $done = 0;
        foreach ($due as $id) {
            // Trouble with one is told, and the others are tended all the same.
            $done += $this->isolation->attempt(
                function () use ($id): int {
                    $this->desk->tend($id);

                    return 1;
                },
                function () use ($id): int {
                    StoredSlip::query()->whereKey($id)->update(['wakes_at' => Columns::moment($this->clock->now()->modify('+1 hour'))]);

                    return 0;
                },
                static fn (): int => 0,
            );
        }

        return $done;
    }

    /** The first moment after another at which one has to be tended; null when none has. */
    public static function next(\DateTimeImmutable $after): ?\DateTimeImmutable
    {
        $at = StoredSlip::rows()->where('wakes_at', '>', Columns::moment($after))->min('wakes_at');

        return is_string($at) ? Columns::instant($at) : null;
    }
}
