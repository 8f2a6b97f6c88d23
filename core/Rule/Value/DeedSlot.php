<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use VividLedger\Shape\Kinds;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Typed;

/** What is set and to what, in words of its own: "close the ticket", "clear the due date", "add the tag vip". */
final readonly class DeedSlot implements Slot
{
    /** It is only heard; what it means is printed as "Set … to …". */
    public function print(mixed $json, Scope $scope, array $around): null
    {
        return null;
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $found = [];
        foreach (self::shapes() as $shape) {
            foreach ($shape->parse($typed, $at, $scope, []) as $one) {
                $json = is_array($one->json) ? $one->json : [];
                $field = is_string($json['field'] ?? null) ? $scope->type->field($json['field']) : null;
                if ($field !== null && $field->isSettable()) {
                    $found[] = $one->as(['field' => $field->name, 'to' => array_diff_key($json, ['field' => true, '' => true])]);
                }
            }
        }

        return Parsed::distinct($found);
    }

    public function schema(): array
    {
        return [];
    }

    /** @return list<Shape> */
    private static function shapes(): array
    {
        return Kinds::once(self::class, static fn (): array => array_values(array_filter(array_map(
            static fn (string $value): ?Shape => $value::deeds(),
            AssignedValues::all(),
        ))));
    }
}
