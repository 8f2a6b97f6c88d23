<?php

declare(strict_types=1);

namespace VividLedger\Shape\Slot;

use Closure;
use VividLedger\Schema\RecordType;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Typed;

/** What another slot reads, seen from another record type: that of a related record, or of one that a line makes. */
final readonly class Elsewhere implements Slot
{
    /** @param  Closure(Scope, array<mixed>): ?RecordType  $type */
    public function __construct(private Slot $slot, private Closure $type)
    {
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return $this->slot->print($json, $scope->about(($this->type)($scope, $around)), []);
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        return $this->slot->parse($typed, $at, $scope->about(($this->type)($scope, $around)), []);
    }

    public function schema(): array
    {
        return $this->slot->schema();
    }
}
