<?php

declare(strict_types=1);

namespace VividLedger\Rehearse;

use VividLedger\Engine\ExecutedStep;
use VividLedger\Engine\HeldBack;
use VividLedger\Engine\Step;
use VividLedger\Engine\Struck;
use VividLedger\Facts\Awaited;
use VividLedger\Facts\Lock;
use VividLedger\Facts\SignOffSeen;
use VividLedger\SignOff\Hold;
use VividLedger\SignOff\SignOffStatus;

/** Sign-offs that were asked for on paper, what they keep locked, and which rules that has held back. */
final class PaperSignOffs
{
    /** @var list<PaperSignOff> in the order they were asked for */
    public array $all = [];

    /** @var list<HeldBack> */
    private array $held = [];

    /** @var list<PaperSignOff> whose end still has to be told and to release their record */
    private array $ended = [];

    /** @param  ?int  $run  of the deed */
    public function take(Step $step, int $entry, ?int $run, \DateTimeImmutable $now): void
    {
        if ($step instanceof HeldBack) {
            $this->held[] = $step;
        }
        if ($step instanceof Struck && $step->lines === null) {
            $this->withdraw(static fn (PaperSignOff $one): bool => $one->run === $step->run->id, $now);
        }
        if (! $step instanceof ExecutedStep) {
            return;
        }
        foreach ($step->performance->signOffs as $asked) {
            // Asked for once more, what was asked before is past.
            $this->withdraw(static fn (PaperSignOff $one): bool => $one->rule->id === $step->rule->id
                && $one->asked->place === $asked->place && $one->isAbout($asked->record->type, $asked->record->id), $now);
            $this->all[] = new PaperSignOff(count($this->all) + 1, $asked, $step->rule, $entry, $run);
        }
    }

    public function lockOn(string $type, int $id): ?Lock
    {
        foreach ($this->all as $one) {
            if ($one->signOff->isOpen() && $one->asked->hold !== Hold::Nothing && $one->isAbout($type, $id)) {
                $catchesUp = $one->asked->hold === Hold::CatchUp;

                return new Lock($one->number, $one->rule->id, $one->run, $one->signOff->startedAt, $catchesUp);
            }
        }

        return null;
    }

    public function signOffOn(string $type, int $id, string $called = ''): ?SignOffSeen
    {
        foreach (array_reverse($this->all) as $one) {
            if ($one->isAbout($type, $id) && in_array($called, ['', $one->asked->key], true)) {
                return $one->signOff->seen($one->asked->why);
            }
        }

        return null;
    }

    public function awaited(int $run, string $key): ?Awaited
    {
        foreach (array_reverse($this->all) as $one) {
            if ($one->run === $run && $one->asked->key === $key) {
                return $one->awaited();
            }
        }

        return null;
    }

    /** How many tasks somebody has that go with sign-offs they are asked for. */
    public function openTasks(int $person): int
    {
        $open = 0;
        foreach ($this->all as $one) {
            foreach ($one->signOff->isOpen() ? $one->signOff->seats : [] as $seat) {
                $gives = $one->asked->route->steps[$seat->step]->task ?? false;
                $open += $gives && $seat->isWaiting() && $seat->person === $person ? 1 : 0;
            }
        }

        return $open;
    }

    /** @return list<PaperSignOff> those that were withdrawn since this was asked last */
    public function withdrawn(): array
    {
        [$ended, $this->ended] = [$this->ended, []];

        return $ended;
    }

    /** @return list<HeldBack> what a sign-off held back and is to be answered now */
    public function release(PaperSignOff $one): array
    {
        $again = [];
        foreach ($this->held as $held) {
            if ($held->lock->signOff === $one->number) {
                $key = "{$held->rule->id}:".($held->answered->event === null ? 'change' : $held->answered->event->key);
                $again[$key] ??= $held;
            }
        }
        $this->held = array_values(array_filter(
            $this->held,
            static fn (HeldBack $held): bool => $held->lock->signOff !== $one->number,
        ));

        return array_values(array_filter($again, static fn (HeldBack $held): bool => $held->comesAgain()));
    }

    /** @param  \Closure(PaperSignOff): bool  $which */
    private function withdraw(\Closure $which, \DateTimeImmutable $now): void
    {
        foreach ($this->all as $one) {
            if ($one->signOff->isOpen() && $which($one)) {
                $one->signOff = $one->signOff->ended(SignOffStatus::Withdrawn, $now);
                $this->ended[] = $one;
            }
        }
    }
}
