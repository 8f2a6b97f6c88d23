<?php

declare(strict_types=1);

namespace VividLedger\Shape;

use VividLedger\Record\WaitedSort;

/** The lines of a page that those below can wait for, by what there is to wait for. */
final class Waitables
{
    /** @var array<string, array<int, array{string, string}>> key and wording, by sort and place; empty keys for none yet */
    private array $lines = [];

    /** @var array<string, array<string, string>> what they are called, by sort and key */
    private array $called = [];

    /** @var array<string, array<string, list<string>>> ways in which what is waited for can end, by sort and key */
    private array $ends = [];

    /** @param  list<string>  $ends  of which a line can wait for one */
    public function add(WaitedSort $sort, int $place, string $key, string $said, array $ends): void
    {
        $this->lines[$sort->value][$place] = [$key, $said];
        if ($key !== '') {
            $this->called[$sort->value][$key] = $sort->of($place);
            $this->ends[$sort->value][$key] = $ends;
        }
    }

    /** @return array<int, array{string, string}> key and wording of those of a sort, by their place */
    public function lines(WaitedSort $sort): array
    {
        return $this->lines[$sort->value] ?? [];
    }

    /** What a line is called; null when there is none of the sort by that key. */
    public function called(WaitedSort $sort, string $key): ?string
    {
        return $this->called[$sort->value][$key] ?? null;
    }

    /** @return list<string> */
    public function ends(WaitedSort $sort, string $key): array
    {
        return $this->ends[$sort->value][$key] ?? [];
    }

    /** @return list<string> of all lines of a sort */
    public function allEnds(WaitedSort $sort): array
    {
        return array_values(array_unique(array_merge(...array_values($this->ends[$sort->value] ?? []))));
    }

    /** @return list<string> the names of those of a sort that have one */
    public function named(WaitedSort $sort): array
    {
        return array_keys($this->called[$sort->value] ?? []);
    }

    /** @return array<string, string> what goes by a key already, whatever it is */
    public function keys(): array
    {
        return array_merge(...array_values($this->called));
    }
}
