<?php

declare(strict_types=1);

namespace VividLedger\Shape\Slot;

use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Typed;

/** A value that says nothing by itself: the words around it say it. */
final readonly class Always implements Slot
{
    public function __construct(private string|int|bool $value = true)
    {
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return $json === $this->value ? '' : null;
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        return [new Parsed($this->value, $at)];
    }

    public function schema(): array
    {
        return $this->value === true ? ['type' => 'boolean'] : ['const' => $this->value];
    }
}
