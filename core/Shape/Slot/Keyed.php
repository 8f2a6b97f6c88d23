<?php

declare(strict_types=1);

namespace VividLedger\Shape\Slot;

use VividLedger\Shape\InKeys;
use VividLedger\Shape\MultiKeySlot;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Typed;

/** A slot that stands under another name in a sentence than in the file. */
final readonly class Keyed implements MultiKeySlot
{
    use InKeys;

    public function __construct(private string $key, private Slot $slot)
    {
    }

    public function keys(): array
    {
        return [$this->key];
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return $this->slot->print(is_array($json) ? ($json[$this->key] ?? null) : null, $scope, $around);
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        return array_map(
            fn (Parsed $one): Parsed => $one->as([$this->key => $one->json]),
            $this->slot->parse($typed, $at, $scope, $around),
        );
    }

    public function properties(): array
    {
        return [$this->key => $this->slot->schema()];
    }

    public function required(): array
    {
        return [$this->key];
    }
}
