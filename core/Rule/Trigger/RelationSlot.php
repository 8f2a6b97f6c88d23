<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Schema\Relation;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Typed;

/** A relation of the record to others, by its name. */
final readonly class RelationSlot implements Slot
{
    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        $found = array_search($json, self::labels($scope), true);

        return $found === false ? null : (string) $found;
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        return array_map(static fn (array $found): Parsed => new Parsed($found[0], $found[1]), $typed->labels($at, self::labels($scope)));
    }

    public function schema(): array
    {
        return ['type' => 'string', 'pattern' => '^[a-z][a-z0-9_]*(\.[a-z][a-z0-9_]*)?$'];
    }

    /** @return array<string, string> */
    private static function labels(Scope $scope): array
    {
        return $scope->once('relations by name', static function () use ($scope): array {
            $labels = [];
            foreach (Relation::of($scope->schema, $scope->type) as $relation) {
                $labels[$relation->one()] ??= $relation->name();
            }

            return $labels;
        });
    }
}
