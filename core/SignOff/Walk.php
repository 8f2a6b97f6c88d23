<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

use VividLedger\Facts\View;

/** The way along a route: whom a step asks, whether it is agreed to, and where it goes then. */
final readonly class Walk
{
    public function __construct(
        private Route $route,
        private View $view,
        private Chooser $chooser,
        private Times $times,
        private \DateTimeImmutable $now,
    ) {
    }

    /** Goes to a step, past those whose condition does not hold; behind the last one it is agreed. */
    public function enter(Sitting $sitting, int $nth): void
    {
        $step = $this->route->steps[$nth] ?? null;
        if ($step === null) {
            $sitting->end(SignOffStatus::Agreed, $this->now);

            return;
        }
        $sitting->signOff = $sitting->signOff->with(step: $nth, needed: 0, queue: []);
        if ($step->onlyIf !== null && ! $step->onlyIf->compile()($this->view)) {
            $sitting->tell(SignOffEventKind::StepLeftOut);
            $this->enter($sitting, $nth + 1);

            return;
        }
        $people = $this->people($sitting, $step);
        if ($people === []) {
            $sitting->end(SignOffStatus::Stopped, $this->now);

            return;
        }
        $sitting->signOff = $sitting->signOff->with(needed: min($step->needed ?? count($people), count($people)));
        $fresh = [];
        foreach ($people as $person => $for) {
            if ($sitting->signOff->hasAgreed($person, $nth)) {
                continue;
            }
            if ($sitting->signOff->hasAgreed($person)) {
                $seat = (new Seat($nth, $person, $this->now))->becomes(SeatState::Yes, $this->now, byItself: true);
                $sitting->signOff = $sitting->signOff->withSeat($seat);
                $sitting->tell(SignOffEventKind::SaidBefore, $person);
            } else {
                $fresh[$person] = $for;
            }
        }
        if ($step->inTurn) {
            $sitting->signOff = $sitting->signOff->with(queue: array_keys($fresh));
        } else {
            foreach ($fresh as $person => $for) {
                $this->ask($sitting, $step, $person, for: $for);
            }
        }
        $this->count($sitting);
    }

    /** Whether the step at hand is agreed, or cannot be any more; otherwise the next in turn is asked. */
    public function count(Sitting $sitting): void
    {
        $signOff = $sitting->signOff;
        $step = $this->route->steps[$signOff->step];
        $yes = count($signOff->ofStep(SeatState::Yes));
        $waiting = $signOff->ofStep(SeatState::Waiting);
        $left = count($waiting) + count($signOff->queue);
        $isEnough = $step->until === null ? $yes >= $signOff->needed : $yes > 0 && $step->until->compile()($this->view);
        if ($isEnough) {
            $sitting->signOff = $signOff->answered($this->now);
            $sitting->tell(SignOffEventKind::StepAgreed);
            $this->enter($sitting, $signOff->step + 1);
        } elseif ($step->until === null ? $yes + $left < $signOff->needed : $left === 0) {
            // Where a condition has to hold, everybody may have said yes and it does not: then nobody is left who could decide.
            $isNo = $step->until === null || $signOff->ofStep(SeatState::No) !== [];
            $sitting->end($isNo ? SignOffStatus::Declined : SignOffStatus::Stopped, $this->now);
        } elseif ($waiting === [] && $signOff->queue !== []) {
            $sitting->signOff = $signOff->with(queue: array_slice($signOff->queue, 1));
            $this->askInTurn($sitting, $step, $signOff->queue[0]);
        }
    }

    /** The next in turn; by now they may be absent, which they were not when the step began. */
    private function askInTurn(Sitting $sitting, RouteStep $step, int $person): void
    {
        $for = null;
        foreach ($this->chooser->ofStep($step, $sitting->signOff->asker) as $one => $absent) {
            $for = $one === $person ? $absent : $for;
        }
        $this->ask($sitting, $step, $person, for: $for);
    }

    public function ask(
        Sitting $sitting,
        RouteStep $step,
        int $person,
        SignOffEventKind $kind = SignOffEventKind::Asked,
        ?int $insteadOf = null,
        ?int $for = null,
        string $comment = '',
    ): void {
        $due = $this->times->due($step, $this->now, $person);
        $sitting->signOff = $sitting->signOff->withSeat(new Seat($sitting->signOff->step, $person, $this->now, $due, for: $for));
        $sitting->tell($for === null ? $kind : SignOffEventKind::Deputised, $person, $for ?? $insteadOf, comment: $comment);
    }

    public function passOn(
        Sitting $sitting,
        int $place,
        Seat $seat,
        ?int $to,
        SignOffStatus $otherwise,
        SignOffEventKind $kind = SignOffEventKind::PassedOn,
        ?int $for = null,
    ): null {
        if ($to === null) {
            $sitting->end($otherwise, $this->now);

            return null;
        }
        $sitting->signOff = $sitting->signOff->withSeat($seat->becomes(SeatState::PassedOn, $this->now), $place);
        $this->ask($sitting, $this->route->steps[$seat->step], $to, $kind, $seat->person, $for);

        return null;
    }

    /** The route answers for somebody who did not. */
    public function decide(Sitting $sitting, int $place, Seat $seat, Answer $answer): void
    {
        $sitting->signOff = $sitting->signOff->withSeat($seat->becomes($answer->state(), $this->now, byItself: true), $place);
        $sitting->tell(SignOffEventKind::Counted, $seat->person, answer: $answer);
        $this->count($sitting);
    }

    /**
     * Whom a step asks, with the absent person in whose place they decide; the fallback where nobody is found.
     *
     * @return array<int, ?int>
     */
    private function people(Sitting $sitting, RouteStep $step): array
    {
        $people = $this->chooser->ofStep($step, $sitting->signOff->asker);
        if ($people !== []) {
            return $people;
        }
        $fallback = $this->chooser->fallback($sitting->signOff);
        if ($fallback === null) {
            return [];
        }
        $sitting->tell(SignOffEventKind::StoodIn, $fallback);

        return [$fallback => null];
    }
}
