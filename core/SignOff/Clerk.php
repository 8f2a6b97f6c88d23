<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

use VividLedger\Facts\View;
use VividLedger\Schema\Field;

/**
 * Leads a sign-off along its route, at the moment its facts tell. Touches nothing: each act gives the sign-off as it stands then,
 * and what happened. Nobody decides on what they asked for themselves, nobody is asked twice, and it ends once.
 */
final readonly class Clerk
{
    private \DateTimeImmutable $now;

    private Chooser $chooser;

    private Times $times;

    public function __construct(private Route $route, private View $view, \DateTimeZone $zone)
    {
        $this->now = $view->facts->now();
        $this->chooser = new Chooser($view);
        $this->times = new Times($route, $view->facts, $zone);
    }

    public function begin(?int $asker): Moved
    {
        $sitting = new Sitting(new SignOff($asker, $this->now));
        $this->enter($sitting, 0);

        return $sitting->moved();
    }

    /** @throws NotDecided when it has ended, when the person is not being asked, and when a no comes without its reason */
    public function answer(SignOff $signOff, int $person, Answer $answer, string $comment = ''): Moved
    {
        $place = $this->placeOf($signOff, $person);
        if ($answer === Answer::No && trim($comment) === '') {
            throw NotDecided::withoutReason();
        }
        $comment = trim($comment);
        $sitting = new Sitting($signOff->withSeat($signOff->seats[$place]->becomes($answer->state(), $this->now, $comment), $place));
        $sitting->tell(SignOffEventKind::Said, $person, answer: $answer, comment: $comment);
        $this->count($sitting);

        return $sitting->moved();
    }

    /** @throws NotDecided when it has ended */
    public function withdraw(SignOff $signOff): Moved
    {
        if (! $signOff->isOpen()) {
            throw NotDecided::ended($signOff->status);
        }
        $sitting = new Sitting($signOff);
        $sitting->end(SignOffStatus::Withdrawn, $this->now);

        return $sitting->moved();
    }

    /**
     * Somebody who is asked gives it to somebody else.
     *
     * @throws NotDecided
     */
    public function handOver(SignOff $signOff, int $person, int $to, string $comment = ''): Moved
    {
        $place = $this->placeOf($signOff, $person);
        if (! $this->chooser->mayTake($signOff, $to)) {
            throw NotDecided::cannotBeGiven();
        }
        $seat = $signOff->seats[$place];
        $sitting = new Sitting($signOff->withSeat($seat->becomes(SeatState::PassedOn, $this->now, trim($comment)), $place));
        $this->ask($sitting, $this->route->steps[$seat->step], $to, SignOffEventKind::HandedOver, $person, comment: trim($comment));

        return $sitting->moved();
    }

    /**
     * Somebody who is asked wants to know something first. Until it is answered, their time stands still.
     *
     * @throws NotDecided
     */
    public function askBack(SignOff $signOff, int $person, string $question): Moved
    {
        $place = $this->placeOf($signOff, $person);
        if (trim($question) === '') {
            throw NotDecided::withoutQuestion();
        }
        if ($signOff->asker === null) {
            throw NotDecided::nobodyToAsk();
        }
        $talk = new Talk($person, $this->now, trim($question));
        $sitting = new Sitting($signOff->withSeat($signOff->seats[$place]->asks($talk), $place));
        $sitting->tell(SignOffEventKind::AskedBack, $person, $signOff->asker, comment: trim($question));

        return $sitting->moved();
    }

    /**
     * Answers what somebody who is asked wanted to know.
     *
     * @param  int  $place  of the seat of whoever asked
     *
     * @throws NotDecided
     */
    public function answerBack(SignOff $signOff, int $place, int $by, string $answer): Moved
    {
        $seat = $signOff->seats[$place] ?? null;
        if (! $signOff->isOpen()) {
            throw NotDecided::ended($signOff->status);
        }
        if ($seat === null || ! $seat->asksBack()) {
            throw NotDecided::noQuestion();
        }
        if (trim($answer) === '') {
            throw NotDecided::withoutQuestion();
        }
        $sitting = new Sitting($signOff->withSeat($seat->hears(new Talk($by, $this->now, trim($answer))), $place));
        $sitting->tell(SignOffEventKind::AnsweredBack, $by, $seat->person, comment: trim($answer));

        return $sitting->moved();
    }

    /** What falls due by now: reminders, people whose time has run out, those not at work any more, and ways that lead elsewhere. */
    public function tend(SignOff $signOff): Moved
    {
        $sitting = new Sitting($signOff);
        // Whoever comes in the place of another is looked at as well; each seat is settled once.
        for ($place = 0; $sitting->signOff->isOpen() && isset($sitting->signOff->seats[$place]); $place++) {
            $seat = $sitting->signOff->seats[$place];
            if (! $seat->isWaiting()) {
                continue;
            }
            if ($this->chooser->person($seat->person)?->isAtWork() !== true) {
                $this->notAtWork($sitting, $place, $seat);
            } elseif (($to = $this->leadsTo($sitting->signOff, $seat)) !== null) {
                $this->passOn($sitting, $place, $seat, $to, SignOffStatus::Stopped, SignOffEventKind::Rerouted);
            } elseif ($seat->asksBack()) {
                $this->goOn($sitting, $place, $seat);
            } elseif ($seat->due !== null && $seat->due <= $this->now) {
                $this->late($sitting, $place, $seat);
            } else {
                $this->remind($sitting, $place, $seat);
            }
        }

        return $sitting->moved();
    }

    /** Goes on along this route, which is not the one it began with: what was agreed to stays, and the step at hand begins anew. */
    public function moveHere(SignOff $signOff): Moved
    {
        if (! $signOff->isOpen()) {
            throw NotDecided::ended($signOff->status);
        }
        $sitting = new Sitting($signOff->answered($this->now));
        $sitting->tell(SignOffEventKind::RouteChanged);
        $this->enter($sitting, min($signOff->step, count($this->route->steps) - 1));

        return $sitting->moved();
    }

    /**
     * Whom the steps to come would ask, as things are now.
     *
     * @return list<array{step: int, people: list<int>, leftOut: bool}> steps from 0; those whose condition does not hold are left out
     */
    public function ahead(SignOff $signOff): array
    {
        $ahead = [];
        foreach ($signOff->isOpen() ? array_slice($this->route->steps, $signOff->step, null, true) : [] as $nth => $step) {
            $isAtHand = $nth === $signOff->step;
            $people = $isAtHand ? $signOff->queue : array_keys($this->chooser->ofStep($step, $signOff->asker));
            if (! $isAtHand || $people !== []) {
                $isLeftOut = ! $isAtHand && $step->onlyIf !== null && ! $step->onlyIf->compile()($this->view);
                $ahead[] = ['step' => $nth, 'people' => $people, 'leftOut' => $isLeftOut];
            }
        }

        return $ahead;
    }

    /** When it has to be tended next; null when nothing falls due any more. */
    public function wakesAt(SignOff $signOff): ?\DateTimeImmutable
    {
        return $this->times->wakesAt($signOff);
    }

    /**
     * What somebody who is asked may correct while they decide.
     *
     * @return list<Field>
     *
     * @throws NotDecided
     */
    public function mayCorrect(SignOff $signOff, int $person): array
    {
        return $this->route->steps[$signOff->seats[$this->placeOf($signOff, $person)]->step]->correct;
    }

    /** @throws NotDecided when it has ended, and when the person is not being asked */
    private function placeOf(SignOff $signOff, int $person): int
    {
        if (! $signOff->isOpen()) {
            throw NotDecided::ended($signOff->status);
        }

        return $signOff->waitsFor($person) ?? throw NotDecided::notAsked();
    }

    /** Goes to a step, past those whose condition does not hold; behind the last one it is agreed. */
    private function enter(Sitting $sitting, int $nth): void
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
    private function count(Sitting $sitting): void
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

    private function ask(
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

    private function remind(Sitting $sitting, int $place, Seat $seat): void
    {
        $reminder = $this->times->reminderOf($seat);
        if ($reminder !== null && $reminder <= $this->now) {
            $sitting->signOff = $sitting->signOff->withSeat($seat->remindedOnceMore(), $place);
            $sitting->tell(SignOffEventKind::Reminded, $seat->person);
        }
    }

    private function late(Sitting $sitting, int $place, Seat $seat): void
    {
        $step = $this->route->steps[$seat->step];
        $signOff = $sitting->signOff;
        $to = fn (?int $person): mixed => $this->passOn($sitting, $place, $seat, $person, SignOffStatus::TimedOut);
        match ($step->late) {
            WhenLate::AskAgain => $seat->round <= $step->again
                ? $this->askAgain($sitting, $place, $seat, $step) : $this->decide($sitting, $place, $seat, Answer::No),
            WhenLate::NextUp => $to($this->chooser->nextUp($signOff, $seat->person)),
            WhenLate::Deputy => $to($this->chooser->deputy($signOff, $seat->person)),
            WhenLate::PassOn => $to($this->chooser->instead($signOff, $step)),
            WhenLate::Agree => $this->decide($sitting, $place, $seat, Answer::Yes),
            WhenLate::Decline => $this->decide($sitting, $place, $seat, Answer::No),
            WhenLate::Stop => $sitting->end(SignOffStatus::TimedOut, $this->now),
        };
    }

    private function askAgain(Sitting $sitting, int $place, Seat $seat, RouteStep $step): void
    {
        $again = $seat->again($this->now, $this->times->due($step, $this->now, $seat->person));
        $sitting->signOff = $sitting->signOff->withSeat($again, $place);
        $sitting->tell(SignOffEventKind::AskedAgain, $seat->person);
    }

    /** The route answers for somebody who did not. */
    private function decide(Sitting $sitting, int $place, Seat $seat, Answer $answer): void
    {
        $sitting->signOff = $sitting->signOff->withSeat($seat->becomes($answer->state(), $this->now, byItself: true), $place);
        $sitting->tell(SignOffEventKind::Counted, $seat->person, answer: $answer);
        $this->count($sitting);
    }

    private function passOn(
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

    /** Somebody who was asked is absent by now, or has left the company. */
    private function notAtWork(Sitting $sitting, int $place, Seat $seat): void
    {
        $signOff = $sitting->signOff;
        $isAway = $this->chooser->person($seat->person)?->active === true;
        $deputy = $isAway ? $this->chooser->deputy($signOff, $seat->person) : null;
        if ($deputy !== null) {
            $this->passOn($sitting, $place, $seat, $deputy, SignOffStatus::Stopped, for: $seat->person);

            return;
        }
        $to = $this->chooser->nextUp($signOff, $seat->person) ?? $this->chooser->fallback($signOff);
        // An absence ends; where nobody else can be asked, it waits for them.
        if ($to !== null || ! $isAway) {
            $this->passOn($sitting, $place, $seat, $to, SignOffStatus::Stopped);
        } else {
            $this->whileAway($sitting, $place, $seat);
        }
    }

    /** Their time runs on all the same, so that it ends. */
    private function whileAway(Sitting $sitting, int $place, Seat $seat): void
    {
        if ($seat->asksBack()) {
            $this->goOn($sitting, $place, $seat);
        } elseif ($seat->due !== null && $seat->due <= $this->now) {
            $this->late($sitting, $place, $seat);
        }
    }

    private function goOn(Sitting $sitting, int $place, Seat $seat): void
    {
        $at = $this->times->goesOn($seat);
        if ($at !== null && $at <= $this->now) {
            $sitting->signOff = $sitting->signOff->withSeat($seat->goesOn($this->now), $place);
            $sitting->tell(SignOffEventKind::WentOn, $seat->person);
        }
    }

    /** Whom the way of a step leads to by now in the place of somebody; null when it still leads to them, or to nobody new. */
    private function leadsTo(SignOff $signOff, Seat $seat): ?int
    {
        $step = $this->route->steps[$seat->step];
        if ($seat->step !== $signOff->step || ! $step->who->followsTree() || ! $signOff->cameByTheWay($seat)) {
            return null;
        }
        $people = $this->chooser->ofStep($step, $signOff->asker);
        if (array_key_exists($seat->person, $people)) {
            return null;
        }
        foreach (array_keys($people) as $person) {
            if ($this->chooser->mayTake($signOff, $person)) {
                return $person;
            }
        }

        return null;
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
