<?php

declare(strict_types=1);

namespace App\Demo;

use App\Models\Columns;
use App\Models\SignOffs\SignOffSeat;
use App\Models\SignOffs\StoredSignOff;
use App\Store\DomainError;
use App\Store\SignOffs\SignOffService;
use App\Work\SignOffs\SignOffsDue;
use VividLedger\SignOff\Answer;
use VividLedger\SignOff\SeatState;

/** People answer most of what they are asked to sign off, some with a no, and some only when time runs out. */
final class SignOffHistory implements DemoPart
{
    /** Of a hundred so many agree; those who decline come next, and whoever is left says nothing. */
    private const AGREE = 84;

    private const DECLINE = 8;

    /** Of those asked in the last days more are still open. */
    private const LATELY_DAYS = 4;

    private Stage $stage;

    /** @var list<string> */
    private array $reasons = [];

    private int $lastSeat = 0;

    private ?\DateTimeImmutable $next = null;

    /** Chance of its own, so that all else goes on as it was. */
    private Stage $chance;

    public function __construct(private readonly SignOffService $desk, private readonly SignOffsDue $due)
    {
        $this->stage = $this->chance = new Stage(0, 0);
    }

    /** @param  list<string>  $reasons  why somebody declines */
    public function begin(Stage $stage, int $seed, array $reasons): void
    {
        [$this->stage, $this->reasons, $this->lastSeat] = [$stage, $reasons, 0];
        $this->chance = new Stage($seed + 1, $stage->end);
    }

    /** When one has to be tended next; null when none has. Nobody is absent in the history. */
    public function next(): ?\DateTimeImmutable
    {
        $at = StoredSignOff::rows()->min('wakes_at');

        return $this->next = is_string($at) ? Columns::instant($at) : null;
    }

    public function tend(\DateTimeImmutable $now): void
    {
        if ($this->next !== null && $this->next <= $now) {
            $this->due->work();
        }
    }

    public function answer(): void
    {
        $seats = SignOffSeat::query()->where('id', '>', $this->lastSeat)->where('state', SeatState::Waiting)->orderBy('id')->get();
        foreach ($seats as $seat) {
            $this->lastSeat = $seat->id;
            $asked = $seat->asked_at->getTimestamp();
            $roll = $this->chance->random->getInt(1, 100);
            $isLate = $asked > $this->stage->end - self::LATELY_DAYS * 86_400 && $this->chance->onceIn(2);
            $at = $this->chance->workingMoment($asked + 3600, $asked + 40 * 3600);
            if ($isLate || $roll > self::AGREE + self::DECLINE) {
                continue;
            }
            $answer = $roll <= self::AGREE ? Answer::Yes : Answer::No;
            $why = $answer === Answer::No ? (string) $this->chance->one($this->reasons) : '';
            $this->stage->at($at, function () use ($seat, $answer, $why): void {
                try {
                    $this->desk->answer($seat->sign_off_id, $seat->person_id, $answer, $why);
                } catch (DomainError) {
                    // It has ended meanwhile, or somebody else decides by now.
                }
            });
        }
    }
}
