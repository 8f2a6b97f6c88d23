<?php

declare(strict_types=1);

namespace VividLedger\Rehearse;

use VividLedger\Engine\ExecutedStep;
use VividLedger\Engine\Step;
use VividLedger\Engine\Struck;
use VividLedger\Facts\Awaited;
use VividLedger\Facts\SlipSeen;
use VividLedger\Slip\SlipClerk;
use VividLedger\Slip\SlipMoved;
use VividLedger\Slip\SlipStatus;

/** Slips that were sent on paper. */
final class PaperSlips
{
    /** @var list<PaperSlip> in the order they were sent */
    public array $all = [];

    /** @var list<array{PaperSlip, SlipMoved}> whose end still has to be told */
    private array $ended = [];

    /** @param  ?int  $run  of the deed */
    public function take(Step $step, int $entry, ?int $run, \DateTimeImmutable $now): void
    {
        if ($step instanceof Struck && $step->lines === null) {
            $this->withdraw(static fn (PaperSlip $one): bool => $one->run === $step->run->id, $now);
        }
        if (! $step instanceof ExecutedStep) {
            return;
        }
        foreach ($step->performance->slips as $sent) {
            // Sent once more, what was sent before is past.
            $this->withdraw(static fn (PaperSlip $one): bool => $one->rule->id === $step->rule->id
                && $one->sent->place === $sent->place && $one->isAbout($sent->record->type, $sent->record->id), $now);
            $this->all[] = new PaperSlip(count($this->all) + 1, $sent, $step->rule, $entry, $run);
        }
    }

    public function slipOn(string $type, int $id): ?SlipSeen
    {
        foreach (array_reverse($this->all) as $one) {
            if ($one->isAbout($type, $id)) {
                $turn = $one->slip->turns[count($one->slip->turns) - 1] ?? null;

                return new SlipSeen($one->slip->status->value, $turn->name ?? '', $one->answers);
            }
        }

        return null;
    }

    public function awaited(int $run, string $key): ?Awaited
    {
        foreach ($this->all as $one) {
            if ($one->run === $run && $one->sent->key === $key) {
                return $one->slip->awaited();
            }
        }

        return null;
    }

    /** @return list<array{PaperSlip, SlipMoved}> those that were withdrawn since this was asked last */
    public function withdrawn(): array
    {
        [$ended, $this->ended] = [$this->ended, []];

        return $ended;
    }

    /** @param  \Closure(PaperSlip): bool  $which */
    private function withdraw(\Closure $which, \DateTimeImmutable $now): void
    {
        foreach ($this->all as $one) {
            if ($one->slip->isOpen() && $which($one)) {
                $moved = SlipClerk::ended($one->slip, SlipStatus::Withdrawn, $now);
                $one->slip = $moved->slip;
                $this->ended[] = [$one, $moved];
            }
        }
    }
}
