<?php

declare(strict_types=1);

namespace VividLedger\People;

use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\Json;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Slot\FieldPath;
use VividLedger\Shape\Slot\OwnField;
use VividLedger\Shape\Typed;

/** A field that holds a person, by a path. The record’s own owner and creator have names of their own. */
final readonly class PersonPath implements Slot
{
    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        $path = is_string($json) ? $scope->schema->path($scope->type, $json) : null;

        return $path?->field->type === FieldType::Person ? $path->label() : null;
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $found = array_values(array_filter(FieldPath::all($typed, $at, $scope), static function (Parsed $one) use ($scope): bool {
            $path = is_string($one->json) ? $scope->schema->path($scope->type, $one->json) : null;

            // "The manager of the owner" is rather found by way of the person.
            $isManager = $one->cost > 0 && $path !== null && $path->hops !== [] && $path->field->name === 'manager';

            return $path?->field->type === FieldType::Person && ! $isManager && ! in_array(
                $one->json,
                [$scope->type->owner, 'created_by'],
                true,
            );
        }));
        // Without an article it is rather the field itself that is named.
        $isBare = preg_match('/(?<![\p{L}\p{N}])(?:the|its)\s*$/iu', substr($typed->text, 0, $at)) !== 1;
        $found = $isBare ? array_map(static fn (Parsed $one): Parsed => $one->costlier(1), $found) : $found;
        if ($found === []) {
            OwnField::expect($typed, $at, $scope, static fn (?Field $field): bool => $field?->type === FieldType::Person
                && ! in_array($field->name, [$scope->type->owner, 'created_by'], true), leads: true);
        }

        return $found;
    }

    public function schema(): array
    {
        return Json::ref('path');
    }
}
