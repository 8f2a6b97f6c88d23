<?php

declare(strict_types=1);

namespace VividLedger\Rule\Cases;

use VividLedger\Shape\Node;
use VividLedger\Words\Words;

/** Which lines of a page stand in which case, as their order says. Cases stand in cases at most once. */
final class CaseLayout
{
    /** @var array<int, int> how far each line stands in, by its place */
    public array $indents = [];

    /** @var array<int, ?int> place of the heading that each line stands under; null for none */
    public array $under = [];

    /** @var array<int, list<int>> places of the headings of cases, by the place of their first */
    public array $branches = [];

    /** @var array<int, int> place of the first of its cases, by the place of a heading */
    public array $first = [];

    /** @var array<int, string> what is wrong with a heading, by its place */
    public array $problems = [];

    /** @var array<int<0, 1>, ?array{int, int, bool}> the cases at hand and those within: first, latest, whether it is the last */
    private array $open = [null, null];

    /**
     * @param  list<Node>  $items  the lines of a file
     * @param  array<string, class-string<CaseHeading>>  $headings  by kind
     */
    public static function of(array $items, array $headings): self
    {
        $layout = new self;
        foreach ($items as $place => $item) {
            $heading = $headings[$item->kind()] ?? null;
            if ($heading === null) {
                $layout->under[$place] = $layout->open[1][1] ?? $layout->open[0][1] ?? null;
                $layout->indents[$place] = ($layout->open[0] === null ? 0 : 1) + ($layout->open[1] === null ? 0 : 1);
            } else {
                $layout->heading($item, $place, $heading::part());
            }
        }

        return $layout;
    }

    private function heading(Node $item, int $place, CasePart $part): void
    {
        $level = $item->child('inner')->raw === true ? 1 : 0;
        $this->indents[$place] = $level;
        $this->under[$place] = $level === 1 ? ($this->open[0][1] ?? null) : null;
        $open = $this->open[$level];
        $wrong = match (true) {
            $level === 1 && $this->open[0] === null => Words::say('There is no case that this could stand in: begin with “If …”.'),
            $part === CasePart::First => null,
            $open === null => Words::say('There is no case before this one: begin with “If …”.'),
            $part !== CasePart::End && $open[2] => Words::say('Nothing comes after “Otherwise”: put this case before it.'),
            default => null,
        };
        if ($wrong !== null) {
            $this->problems[$place] = $wrong;

            return;
        }
        if ($level === 0) {
            $this->open[1] = null;
        }
        if (! $part->opens()) {
            $this->open[$level] = null;

            return;
        }
        $first = $part === CasePart::First || $open === null ? $place : $open[0];
        $this->branches[$first][] = $place;
        $this->first[$place] = $first;
        $this->open[$level] = [$first, $place, $part === CasePart::Last];
    }

    /** Whether a line stands under a heading, or within something that does. */
    public function isWithin(int $place, int $heading): bool
    {
        for ($above = $this->under[$place] ?? null; $above !== null; $above = $this->under[$above] ?? null) {
            if ($above === $heading) {
                return true;
            }
        }

        return false;
    }
}
