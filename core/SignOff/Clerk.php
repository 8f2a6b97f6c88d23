<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

use VividLedger\Facts\View;
use VividLedger\House\Person;
use VividLedger\Time\Due;
use VividLedger\Time\OutOfTime;

/**
 * Leads a sign-off along its route, at the moment its facts tell. Touches nothing: each act gives the sign-off as it stands then,
 * and what happened. Nobody decides on what they asked for themselves, nobody is asked twice, and it ends once.
 */
final readonly class Clerk
{
    private \DateTimeImmutable $now;

    public function __construct(private Route $route, private View $view, private \DateTimeZone $zone)
    {
        $this->now = $view->facts->now();
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
        if (! $signOff->isOpen()) {
            throw NotDecided::ended($signOff->status);
        }
        $place = $signOff->waitsFor($person) ?? throw NotDecided::notAsked();
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

    /** What falls due by now: reminders, people whose time has run out, and those who have left. */
    public function tend(SignOff $signOff): Moved
    {
        $sitting = new Sitting($signOff);
        // Whoever comes in the place of another is looked at as well; each seat is settled once.
        for ($place = 0; $sitting->signOff->isOpen() && isset($sitting->signOff->seats[$place]); $place++) {
            $seat = $sitting->signOff->seats[$place];
            if (! $seat->isWaiting()) {
                continue;
            }
            if ($this->person($seat->person)?->active !== true) {
                $this->left($sitting, $place, $seat);
            } elseif ($seat->due !== null && $seat->due <= $this->now) {
                $this->late($sitting, $place, $seat);
            } else {
                $this->remind($sitting, $place, $seat);
            }
        }

        return $sitting->moved();
    }

    /** When it has to be tended next; null when nothing falls due any more. */
    public function wakesAt(SignOff $signOff): ?\DateTimeImmutable
    {
        $moments = [];
        foreach ($signOff->isOpen() ? $signOff->ofStep(SeatState::Waiting) : [] as $seat) {
            array_push($moments, $seat->due, $this->reminderOf($seat));
        }
        $moments = array_filter($moments);

        return $moments === [] ? null : min($moments);
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
        foreach ($people as $person) {
            if ($sitting->signOff->hasAgreed($person)) {
                $seat = (new Seat($nth, $person, $this->now))->becomes(SeatState::Yes, $this->now, byItself: true);
                $sitting->signOff = $sitting->signOff->withSeat($seat);
                $sitting->tell(SignOffEventKind::SaidBefore, $person);
            } else {
                $fresh[] = $person;
            }
        }
        if ($step->inTurn) {
            $sitting->signOff = $sitting->signOff->with(queue: $fresh);
        } else {
            array_walk($fresh, fn (int $person) => $this->ask($sitting, $step, $person));
        }
        $this->count($sitting);
    }

    /** Whether the step at hand is agreed, or cannot be any more; otherwise the next in turn is asked. */
    private function count(Sitting $sitting): void
    {
        $signOff = $sitting->signOff;
        $yes = count($signOff->ofStep(SeatState::Yes));
        $waiting = $signOff->ofStep(SeatState::Waiting);
        if ($yes >= $signOff->needed) {
            $sitting->signOff = $signOff->answered($this->now);
            $sitting->tell(SignOffEventKind::StepAgreed);
            $this->enter($sitting, $signOff->step + 1);
        } elseif ($yes + count($waiting) + count($signOff->queue) < $signOff->needed) {
            $sitting->end(SignOffStatus::Declined, $this->now);
        } elseif ($waiting === [] && $signOff->queue !== []) {
            $sitting->signOff = $signOff->with(queue: array_slice($signOff->queue, 1));
            $this->ask($sitting, $this->route->steps[$signOff->step], $signOff->queue[0]);
        }
    }

    private function ask(Sitting $sitting, RouteStep $step, int $person, ?int $insteadOf = null): void
    {
        $seat = new Seat($sitting->signOff->step, $person, $this->now, $this->moment($step->within, $this->now, $person));
        $sitting->signOff = $sitting->signOff->withSeat($seat);
        $sitting->tell($insteadOf === null ? SignOffEventKind::Asked : SignOffEventKind::PassedOn, $person, $insteadOf);
    }

    private function remind(Sitting $sitting, int $place, Seat $seat): void
    {
        $reminder = $this->reminderOf($seat);
        if ($reminder !== null && $reminder <= $this->now) {
            $sitting->signOff = $sitting->signOff->withSeat($seat->remindedOnceMore(), $place);
            $sitting->tell(SignOffEventKind::Reminded, $seat->person);
        }
    }

    private function late(Sitting $sitting, int $place, Seat $seat): void
    {
        $step = $this->route->steps[$seat->step];
        match ($step->late) {
            WhenLate::AskAgain => $seat->round <= $step->again
                ? $this->askAgain($sitting, $place, $seat, $step) : $this->decide($sitting, $place, $seat, Answer::No),
            WhenLate::NextUp => $this->passOn($sitting, $place, $seat, $this->nextUp($sitting, $seat->person), SignOffStatus::TimedOut),
            WhenLate::PassOn => $this->passOn($sitting, $place, $seat, $this->instead($sitting, $step), SignOffStatus::TimedOut),
            WhenLate::Agree => $this->decide($sitting, $place, $seat, Answer::Yes),
            WhenLate::Decline => $this->decide($sitting, $place, $seat, Answer::No),
            WhenLate::Stop => $sitting->end(SignOffStatus::TimedOut, $this->now),
        };
    }

    private function askAgain(Sitting $sitting, int $place, Seat $seat, RouteStep $step): void
    {
        $due = $this->moment($step->within, $this->now, $seat->person);
        $sitting->signOff = $sitting->signOff->withSeat(new Seat($seat->step, $seat->person, $this->now, $due, $seat->round + 1), $place);
        $sitting->tell(SignOffEventKind::AskedAgain, $seat->person);
    }

    /** The route answers for somebody who did not. */
    private function decide(Sitting $sitting, int $place, Seat $seat, Answer $answer): void
    {
        $sitting->signOff = $sitting->signOff->withSeat($seat->becomes($answer->state(), $this->now, byItself: true), $place);
        $sitting->tell(SignOffEventKind::Counted, $seat->person, answer: $answer);
        $this->count($sitting);
    }

    private function passOn(Sitting $sitting, int $place, Seat $seat, ?int $to, SignOffStatus $otherwise): void
    {
        if ($to === null) {
            $sitting->end($otherwise, $this->now);

            return;
        }
        $sitting->signOff = $sitting->signOff->withSeat($seat->becomes(SeatState::PassedOn, $this->now), $place);
        $this->ask($sitting, $this->route->steps[$seat->step], $to, $seat->person);
    }

    /** Somebody who was asked has left the company. */
    private function left(Sitting $sitting, int $place, Seat $seat): void
    {
        $fallback = $this->view->facts->fallbackPerson();
        $to = $this->nextUp($sitting, $seat->person)
            ?? ($fallback !== null && $this->canBeAsked($sitting, $fallback) ? $fallback->id : null);
        $this->passOn($sitting, $place, $seat, $to, SignOffStatus::Stopped);
    }

    /**
     * Whom a step asks: whoever asked for it is left out for the next above them, those who have left likewise, each once.
     *
     * @return list<int>
     */
    private function people(Sitting $sitting, RouteStep $step): array
    {
        $asker = $sitting->signOff->asker;
        $people = [];
        foreach ($step->who->people($this->view) as $person) {
            foreach ($person->active && $person->id !== $asker ? [$person] : Tree::above($person, $this->view->facts) as $one) {
                if ($one->id !== $asker) {
                    $people[$one->id] = $one->id;
                    break;
                }
            }
        }
        $fallback = $people === [] ? $this->view->facts->fallbackPerson() : null;
        if ($fallback?->active === true && $fallback->id !== $asker) {
            $people[] = $fallback->id;
            $sitting->tell(SignOffEventKind::StoodIn, $fallback->id);
        }

        return array_values($people);
    }

    private function nextUp(Sitting $sitting, int $person): ?int
    {
        foreach (Tree::above($this->person($person), $this->view->facts) as $manager) {
            if ($this->canBeAsked($sitting, $manager)) {
                return $manager->id;
            }
        }

        return null;
    }

    private function instead(Sitting $sitting, RouteStep $step): ?int
    {
        $person = $step->instead?->find($this->view)->person;

        return $person !== null && $this->canBeAsked($sitting, $person) ? $person->id : null;
    }

    private function canBeAsked(Sitting $sitting, Person $person): bool
    {
        return $person->active && $person->id !== $sitting->signOff->asker && ! $sitting->signOff->sits($person->id);
    }

    private function person(int $id): ?Person
    {
        return $this->view->facts->person($id);
    }

    /** When somebody is to be reminded next; null when they are reminded no more before their time runs out. */
    private function reminderOf(Seat $seat): ?\DateTimeImmutable
    {
        $step = $this->route->steps[$seat->step];
        $every = $seat->reminded < $step->mostReminders ? $step->remindEvery?->times($seat->reminded + 1) : null;
        $moment = $this->moment($every, $seat->askedAt, $seat->person);

        return $moment !== null && ($seat->due === null || $moment < $seat->due) ? $moment : null;
    }

    private function moment(?Due $due, \DateTimeImmutable $from, int $person): ?\DateTimeImmutable
    {
        try {
            return $due?->from($from, $this->zone, $this->view->facts->calendar($this->person($person)));
        } catch (OutOfTime) {
            return null;
        }
    }
}
