<?php

declare(strict_types=1);

namespace VividLedger\Shape\Slot;

use VividLedger\Shape\Json;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Typed;

/** Any record type, by its name for one record, or for many. */
final readonly class TypeName implements Slot
{
    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return is_string($json) ? $scope->schema->type($json)?->label : null;
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $labels = [];
        foreach ($scope->schema->types as $type) {
            $labels[$type->label] = $type->name;
            $labels[$type->plural] ??= $type->name;
        }

        return array_map(static fn (array $found): Parsed => new Parsed($found[0], $found[1]), $typed->labels($at, $labels));
    }

    public function schema(): array
    {
        return Json::NAME;
    }
}
