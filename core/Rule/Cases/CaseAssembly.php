<?php

declare(strict_types=1);

namespace VividLedger\Rule\Cases;

use VividLedger\Rule\Line\OnlyAtOnce;
use VividLedger\Rule\Line\Placed;
use VividLedger\Shape\Context;
use VividLedger\Words\Words;

/** Puts the lines of a page into their cases. */
final readonly class CaseAssembly
{
    /** @param  array<int, Placed>  $read  by place, without what is switched off */
    public function __construct(private CaseLayout $layout, private array $read)
    {
    }

    /**
     * Without what stands in a case that is switched off.
     *
     * @param  array<int, ?Placed>  $lines  by place, null where a line is unfinished
     * @return array<int, ?Placed>
     */
    public static function inForce(array $lines, CaseLayout $layout): array
    {
        $isOn = static function (int $place) use ($layout, $lines): bool {
            for ($at = $place; $at !== null; $at = $layout->under[$at] ?? null) {
                if (! array_key_exists($at, $lines) || ! array_key_exists($layout->first[$at] ?? $at, $lines)) {
                    return false;
                }
            }

            return true;
        };

        return array_filter($lines, $isOn, ARRAY_FILTER_USE_KEY);
    }

    /** @return list<Placed> in the order of the page, headings that follow the first of their cases left out */
    public function lines(Context $context): array
    {
        $lines = [];
        foreach ($this->read as $place => $placed) {
            $isFirst = isset($this->layout->branches[$place]);
            if ($isFirst || ! $placed->line instanceof CaseHeading) {
                $lines[] = $this->one($place);
            }
            $this->waits($context, $placed);
            $bare = $placed->bare();
            if ($bare instanceof OnlyAtOnce && ! $this->isAtOnce($place)) {
                $context->problem("/lines/{$place}", 'wrong_type', $bare::whyNow());
            }
        }

        return $lines;
    }

    private function one(int $place): Placed
    {
        $branches = [];
        foreach ($this->layout->branches[$place] ?? [] as $heading) {
            $read = $this->read[$heading] ?? null;
            if ($read?->line instanceof CaseHeading) {
                $branches[] = new CaseBranch($heading, $read->line->condition(), $read->said, $this->under($heading));
            }
        }

        return $this->read[$place]->placedUnder($this->layout->under[$place] ?? null, $branches === [] ? null : new Cases($branches));
    }

    /** @return list<Placed> the lines right under a heading */
    private function under(int $heading): array
    {
        $lines = [];
        foreach ($this->read as $place => $placed) {
            $isOne = isset($this->layout->branches[$place]) || ! $placed->line instanceof CaseHeading;
            if ($isOne && ($this->layout->under[$place] ?? null) === $heading) {
                $lines[] = $this->one($place);
            }
        }

        return $lines;
    }

    /** A line that waits for what stands in another case could wait for ever. */
    private function waits(Context $context, Placed $placed): void
    {
        $key = $placed->timing?->waitsFor();
        foreach ($key === null ? [] : $this->read as $place => $other) {
            $heading = $this->layout->under[$place] ?? null;
            if ($other->key === $key && $heading !== null && ! $this->layout->isWithin($placed->place, $heading)) {
                $context->problem("/lines/{$placed->place}/at", 'other_case', Words::say(
                    'Line {line} stands in a case and may not come. Put this line into the same case.', line: $place + 1,
                ));
            }
        }
    }

    private function isAtOnce(int $place): bool
    {
        for ($at = $place; $at !== null; $at = $this->layout->under[$at] ?? null) {
            if ($this->read[$this->layout->first[$at] ?? $at]->timing !== null) {
                return false;
            }
        }

        return true;
    }
}
