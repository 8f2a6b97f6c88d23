<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

/** What time brings to a sign-off: reminders, people whose time has run out or who are not at work, and ways that lead elsewhere. */
final readonly class Tending
{
    public function __construct(
        private Route $route,
        private Chooser $chooser,
        private Times $times,
        private Walk $walk,
        private \DateTimeImmutable $now,
    ) {
    }

    /** All that falls due by now. */
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
            } elseif ($seat->for !== null && $this->chooser->person($seat->for)?->isAtWork() === true) {
                // Whoever was absent is back, and decides themselves.
                $this->walk->passOn($sitting, $place, $seat, $seat->for, SignOffStatus::Stopped, SignOffEventKind::CameBack);
            } elseif (($to = $this->leadsTo($sitting->signOff, $seat)) !== null) {
                $this->walk->passOn($sitting, $place, $seat, $to, SignOffStatus::Stopped, SignOffEventKind::Rerouted);
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
        if ($seat->round <= $step->again) {
            $this->askAgain($sitting, $place, $seat, $step);

            return;
        }
        $to = fn (?int $person): mixed => $this->walk->passOn($sitting, $place, $seat, $person, SignOffStatus::TimedOut);
        match ($step->late) {
            WhenLate::NextUp => $to($this->chooser->nextUp($signOff, $seat->person)),
            WhenLate::Deputy => $to($this->chooser->deputy($signOff, $seat->person)),
            WhenLate::PassOn => $to($this->chooser->instead($signOff, $step)),
            WhenLate::Agree => $this->walk->decide($sitting, $place, $seat, Answer::Yes),
            WhenLate::AskAgain, WhenLate::Decline => $this->walk->decide($sitting, $place, $seat, Answer::No),
            WhenLate::Stop => $sitting->end(SignOffStatus::TimedOut, $this->now),
        };
    }

    private function askAgain(Sitting $sitting, int $place, Seat $seat, RouteStep $step): void
    {
        $again = $seat->again($this->now, $this->times->due($step, $this->now, $seat->person));
        $sitting->signOff = $sitting->signOff->withSeat($again, $place);
        $sitting->tell(SignOffEventKind::AskedAgain, $seat->person);
    }

    /** Somebody who was asked is absent by now, or has left the company. */
    private function notAtWork(Sitting $sitting, int $place, Seat $seat): void
    {
        $signOff = $sitting->signOff;
        $isAway = $this->chooser->person($seat->person)?->active === true;
        $deputy = $this->chooser->deputy($signOff, $seat->person);
        if ($deputy !== null) {
            $this->walk->passOn($sitting, $place, $seat, $deputy, SignOffStatus::Stopped, for: $isAway ? $seat->person : null);

            return;
        }
        $to = $this->chooser->nextUp($signOff, $seat->person) ?? $this->chooser->fallback($signOff);
        // An absence ends; where nobody else can be asked, it waits for them.
        if ($to !== null || ! $isAway) {
            $this->walk->passOn($sitting, $place, $seat, $to, SignOffStatus::Stopped);
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
}
