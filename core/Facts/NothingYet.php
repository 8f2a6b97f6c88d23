<?php

declare(strict_types=1);

namespace VividLedger\Facts;

/** A world in which no rule has done anything: no guard is used, no task given and nothing in play. */
final readonly class NothingYet implements GuardFacts, SignOffFacts, SlipFacts, TaskFacts
{
    public function guardHeld(int $ruleId, string $type, int $recordId, int $epoch, string $key): bool
    {
        return false;
    }

    public function guardState(int $ruleId, string $type, int $recordId): GuardState
    {
        return new GuardState;
    }

    public function openTasks(array $people): array
    {
        return [];
    }

    public function inPlay(string $type, int $id): array
    {
        return [];
    }

    public function lockOn(string $type, int $id): null
    {
        return null;
    }

    public function signOffOn(string $type, int $id, string $called = ''): null
    {
        return null;
    }

    public function slipOn(string $type, int $id): null
    {
        return null;
    }

    public function candidates(Candidates $candidates, array $except): null
    {
        return null;
    }

    public function mayLapse(string $type, int $id): array
    {
        return [];
    }

    public function tasksOf(int $run, string $key): null
    {
        return null;
    }
}
