<?php

declare(strict_types=1);

namespace VividLedger\Shape\Slot;

use VividLedger\Shape\MultiKeySlot;
use VividLedger\Shape\OnlyHeard;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Typed;

/** The date that has passed when a record is "overdue": the one called Due. */
final readonly class Overdue implements MultiKeySlot
{
    use OnlyHeard;

    public function keys(): array
    {
        return ['field'];
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $found = [];
        foreach ($scope->type->fields as $field) {
            $end = $field->type->isMoment() ? $typed->words($at, 'over'.mb_strtolower($field->label), 3) : null;
            if ($end !== null) {
                $found[] = new Parsed(['field' => $field->name], $end, 1);
            }
        }

        return $found;
    }
}
