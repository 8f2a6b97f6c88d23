<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

use VividLedger\Facts\View;
use VividLedger\House\Person;
use VividLedger\People\Deputy;

/**
 * Chooses who is asked. Whoever asked for it is never among them, and neither is anybody who is not at work: a deputy stands in for
 * who is absent, whoever took over for who has left, and the next above where there is neither.
 */
final readonly class Chooser
{
    public function __construct(private View $view)
    {
    }

    /**
     * Whom a step asks, each once, with the absent person in whose place they decide; null for their own.
     *
     * @return array<int, ?int> by id, in the order they are asked
     */
    public function ofStep(RouteStep $step, ?int $asker): array
    {
        $people = [];
        foreach ($step->who->people($this->view) as $person) {
            $deputy = Deputy::of($person, $this->view->facts);
            if ($deputy !== null && $deputy->id !== $asker && $person->id !== $asker) {
                $people[$deputy->id] ??= $person->active ? $person->id : null;

                continue;
            }
            foreach ([$person, ...Tree::above($person, $this->view->facts)] as $one) {
                if ($one->isAtWork() && $one->id !== $asker) {
                    $people[$one->id] = null;
                    break;
                }
            }
        }

        return $people;
    }

    /** The company's fallback, where a sign-off may ask them. */
    public function fallback(SignOff $signOff): ?int
    {
        $fallback = $this->view->facts->fallbackPerson();

        return $fallback !== null && $this->canBeAsked($signOff, $fallback) ? $fallback->id : null;
    }

    /** The nearest manager above somebody who can be asked. */
    public function nextUp(SignOff $signOff, int $person): ?int
    {
        foreach (Tree::above($this->view->facts->person($person), $this->view->facts) as $manager) {
            if ($this->canBeAsked($signOff, $manager)) {
                return $manager->id;
            }
        }

        return null;
    }

    /** Whoever stands in for somebody while they are absent, took over from them, or is named as doing so. */
    public function deputy(SignOff $signOff, int $person): ?int
    {
        $one = $this->view->facts->person($person);
        $deputy = $one?->deputyId === null ? null : $this->view->facts->person($one->deputyId);
        $deputy = $deputy?->isAtWork() === false ? Deputy::of($deputy, $this->view->facts) : $deputy;

        return $deputy !== null && $this->canBeAsked($signOff, $deputy) ? $deputy->id : null;
    }

    public function instead(SignOff $signOff, RouteStep $step): ?int
    {
        $person = $step->instead?->find($this->view)->person;

        return $person !== null && $this->canBeAsked($signOff, $person) ? $person->id : null;
    }

    public function mayTake(SignOff $signOff, int $person): bool
    {
        $one = $this->view->facts->person($person);

        return $one !== null && $this->canBeAsked($signOff, $one);
    }

    public function person(int $id): ?Person
    {
        return $this->view->facts->person($id);
    }

    private function canBeAsked(SignOff $signOff, Person $person): bool
    {
        return $person->isAtWork() && $person->id !== $signOff->asker && ! $signOff->sits($person->id);
    }
}
