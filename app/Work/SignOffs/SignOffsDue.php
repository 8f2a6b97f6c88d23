<?php

declare(strict_types=1);

namespace App\Work\SignOffs;

use App\Models\Columns;
use App\Models\SignOffs\StoredSignOff;
use App\Store\HouseClock;
use App\Store\People\PeopleRepository;
use App\Store\SignOffs\SignOffService;
use App\Store\Sql\FaultIsolation;

/** Tends the sign-offs whose time has come. Each is a transaction of its own; what another worker is at waits for it. */
final readonly class SignOffsDue
{
    private const MOST = 200;

    public function __construct(
        private HouseClock $clock,
        private SignOffService $desk,
        private PeopleRepository $people,
        private FaultIsolation $isolation,
    ) {
    }

    /** @return int how many were tended */
    public function work(): int
    {
        // Who comes and goes decides who is asked.
        $done = $this->people->keepTime();
        $due = Columns::ints(StoredSignOff::query()->where('wakes_at', '<=', Columns::moment($this->clock->now()))
            ->orderBy('wakes_at')->orderBy('id')->limit(self::MOST)->pluck('id'));
        foreach ($due as $id) {
            // Trouble with one is told, and the others are tended all the same.
            $done += $this->isolation->attempt(
                function () use ($id): int {
                    $this->desk->tend($id);

                    return 1;
                },
                function () use ($id): int {
                    StoredSignOff::query()->whereKey($id)->update(['wakes_at' => Columns::moment($this->clock->now()->modify('+1 hour'))]);

                    return 0;
                },
                static fn (): int => 0,
            );
        }

        return $done;
    }

    /** The first moment after another at which one has to be tended, or somebody goes or comes; null when none is. */
    public static function next(\DateTimeImmutable $after): ?\DateTimeImmutable
    {
        $at = StoredSignOff::rows()->where('wakes_at', '>', Columns::moment($after))->min('wakes_at');
        $absence = PeopleRepository::next();
        $moments = array_filter([
            is_string($at) ? Columns::instant($at) : null, $absence === null || $absence <= $after ? null : $absence,
        ]);

        return $moments === [] ? null : min($moments);
    }
}
