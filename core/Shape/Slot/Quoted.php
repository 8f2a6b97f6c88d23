<?php

declare(strict_types=1);

namespace VividLedger\Shape\Slot;

use VividLedger\Shape\Json;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Typed;

/** A text in quotes. */
final readonly class Quoted implements Slot
{
    public function __construct(private ?int $most = null, private int $least = 1, private ?string $pattern = null)
    {
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return is_string($json) && $json !== '' && ! str_contains($json, "\r") ? Typed::quote($json) : null;
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $quoted = $typed->quoted($at);

        return $quoted === null || $quoted[0] === '' ? [] : [new Parsed(...$quoted)];
    }

    public function schema(): array
    {
        return Json::text($this->most, $this->least) + ($this->pattern === null ? [] : ['pattern' => $this->pattern]);
    }
}
