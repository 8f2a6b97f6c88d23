<?php

declare(strict_types=1);

namespace VividLedger\Shape\Slot;

use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Typed;

/** Something written in one certain way: a day as 2026-12-01. */
final readonly class Code implements Slot
{
    public function __construct(private string $pattern, private string $expected)
    {
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return is_string($json) && preg_match("/^(?:{$this->pattern})$/D", $json) === 1 ? $json : null;
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $found = $typed->pattern($at, $this->pattern, $this->expected);

        return $found === null ? [] : [new Parsed($found[0][0], $found[1])];
    }

    public function schema(): array
    {
        return ['type' => 'string', 'pattern' => "^{$this->pattern}$"];
    }
}
