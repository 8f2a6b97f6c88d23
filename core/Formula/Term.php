<?php

declare(strict_types=1);

namespace VividLedger\Formula;

use VividLedger\Schema\Path;

/** A node of a formula's tree, with its type checked. */
final readonly class Term
{
    /**
     * @param  string  $op  "value", "field", a function's name, or an operator: + - * / ~ == < <= > >= and or not if
     * @param  list<Term>  $parts
     * @param  int  $position  of its first character, counted from 1
     * @param  string|bool|null  $value  of a "value": a number is its decimal text
     */
    public function __construct(
        public string $op,
        public FormulaType $type,
        public array $parts,
        public int $position,
        public string|bool|null $value = null,
        public ?Path $path = null,
    ) {
    }

    /** @return list<Path> every path below */
    public function paths(): array
    {
        return array_merge(
            $this->path === null ? [] : [$this->path],
            ...array_map(static fn (Term $part): array => $part->paths(), $this->parts),
        );
    }

    public function uses(string $op): bool
    {
        foreach ($this->parts as $part) {
            if ($part->uses($op)) {
                return true;
            }
        }

        return $this->op === $op;
    }
}
