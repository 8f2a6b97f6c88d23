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

    private Walk $walk;

    public function __construct(private Route $route, private View $view, \DateTimeZone $zone)
    {
        $this->now = $view->facts->now();
        $this->chooser = new Chooser($view);
        $this->times = new Times($route, $view->facts, $zone);
        $this->walk = new Walk($route, $view, $this->chooser, $this->times, $this->now);
    }

    public function begin(?int $asker): Moved
    {
        $sitting = new Sitting(new SignOff($asker, $this->now));
        $this->walk->enter($sitting, 0);

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
        $sitting->tell(SignOffEventKind::Said, $person, $signOff->seats[$place]->for, answer: $answer, comment: $comment);
        $this->walk->count($sitting);

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
        $this->walk->ask($sitting, $this->route->steps[$seat->step], $to, SignOffEventKind::HandedOver, $person, comment: trim($comment));

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
        return (new Tending($this->route, $this->chooser, $this->times, $this->walk, $this->now))->tend($signOff);
    }

    /** Goes on along this route, which is not the one it began with: what was agreed to stays, and the step at hand begins anew. */
    public function moveHere(SignOff $signOff): Moved
    {
        if (! $signOff->isOpen()) {
            throw NotDecided::ended($signOff->status);
        }
        $sitting = new Sitting($signOff->answered($this->now));
        $sitting->tell(SignOffEventKind::RouteChanged);
        $this->walk->enter($sitting, min($signOff->step, count($this->route->steps) - 1));

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
}
