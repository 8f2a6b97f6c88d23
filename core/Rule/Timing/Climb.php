<?php

declare(strict_types=1);

namespace VividLedger\Rule\Timing;

use VividLedger\Condition\Condition;
use VividLedger\Rule\Ladder\Ladder;
use VividLedger\Shape\Context;
use VividLedger\Shape\Shape;

/** Rung after rung of a ladder, each so long after the one before; the first counts from the line's own time. */
final readonly class Climb implements Timing
{
    use Plain;

    public function __construct(private ?Timing $from, private Ladder $ladder)
    {
    }

    public static function kind(): string
    {
        return 'climb';
    }

    public static function shape(): Shape
    {
        throw new \LogicException('A ladder gives a line this timing; no file says it.');
    }

    public static function label(): string
    {
        return '';
    }

    public static function read(Context $context, \VividLedger\Shape\Node $node): null
    {
        return null;
    }

    public static function ways(Context $context, int $place): array
    {
        return [];
    }

    /** @return array{} */
    public static function parted(): array
    {
        return [];
    }

    public function margin(): string
    {
        return $this->from?->margin() ?? 'at once';
    }

    public function said(): string
    {
        return $this->from?->said() ?? '';
    }

    public function note(): string
    {
        return $this->from?->note() ?? '';
    }

    public function due(Occasion $occasion): ?\DateTimeImmutable
    {
        $at = $this->from === null ? $occasion->started : $this->from->due($occasion);
        for ($number = 1; $number <= $occasion->turn && $at !== null; $number++) {
            $at = $occasion->reckon($this->ladder->rung($number)->wait, $at);
        }

        return $at;
    }

    public function hangsOn(): ?string
    {
        return $this->from?->hangsOn();
    }

    public function waitsFor(): ?string
    {
        return $this->from?->waitsFor();
    }

    public function becomes(): ?Condition
    {
        return $this->from?->becomes();
    }

    /** After an interruption the next rung still lets its time pass: nobody is climbed past. */
    public function again(Occasion $occasion, \DateTimeImmutable $now): ?array
    {
        if ($occasion->turn >= count($this->ladder->rungs)) {
            return null;
        }
        $next = $occasion->turn + 1;
        $due = $this->due($occasion->atTurn($next));

        return $due === null ? null : [$next, $due > $now ? $due : $occasion->reckon($this->ladder->rung($next)->wait, $now)];
    }
}
