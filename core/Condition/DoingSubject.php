<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use VividLedger\Shape\MultiKeySlot;
use VividLedger\Shape\OnlyHeard;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Typed;

/** A number of the record by what the record does: "it costs". */
final readonly class DoingSubject implements MultiKeySlot
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
            if (! $field->type->isDecimal() || str_contains($field->label, ' ')) {
                continue;
            }
            foreach (['it ', "{$scope->type->inSentence()} ", ''] as $who) {
                $end = $typed->words($at, "{$who}{$field->label}s", 3);
                if ($end !== null) {
                    $found[] = new Parsed(['field' => $field->name], $end, 1);
                }
            }
        }

        return $found;
    }
}
