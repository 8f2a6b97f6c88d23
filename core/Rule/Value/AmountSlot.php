<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use VividLedger\Schema\Field;
use VividLedger\Shape\Json;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Slot\Counted;
use VividLedger\Shape\Slot\FieldPath;
use VividLedger\Shape\Typed;

/** A number, or the field that holds one, {"path"}. */
final readonly class AmountSlot implements Slot
{
    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return match (true) {
            is_string($json) => preg_match('/^-?\d+(\.\d+)?$/D', $json) === 1 ? $json : null,
            is_int($json) => (string) $json,
            is_array($json) && array_keys($json) === ['path'] => (new FieldPath)->print($json['path'], $scope, $around),
            default => null,
        };
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $found = $typed->pattern($at, '(?:[€£$]\s*)?(-?\d++(?:\.\d++)?)(?!,\d)(?:\s*%)?', 'a number');
        if ($found !== null) {
            return [new Parsed($found[0][1], $found[1])];
        }

        return [
            ...array_map(
                static fn (array $word): Parsed => new Parsed((string) $word[0], $word[1], 1),
                array_slice($typed->labels($at, Counted::words(), 3), 0, 1),
            ),
            ...array_map(
                static fn (Parsed $path): Parsed => $path->as(['path' => $path->json]),
                (new FieldPath(static fn (Field $field): bool => $field->type->isDecimal()))->parse($typed, $at, $scope, $around),
            ),
        ];
    }

    public function schema(): array
    {
        return [
            'type' => ['string', 'number', 'object'], 'if' => ['type' => 'object'],
            'then' => ['required' => ['path'], 'properties' => ['path' => Json::ref('path')], 'additionalProperties' => false],
        ];
    }
}
