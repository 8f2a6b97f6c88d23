<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use VividLedger\Shape\MultiKeySlot;
use VividLedger\Shape\OnlyHeard;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Typed;

/** The field that is meant without being said: each of the record’s own that fits is a reading. */
final readonly class ImpliedSubject implements MultiKeySlot
{
    use OnlyHeard;

    public function __construct(private SubjectSlot $of)
    {
    }

    public function keys(): array
    {
        return ['field'];
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $found = [];
        foreach ($scope->type->fields as $field) {
            if ($this->of->fits($field)) {
                $found[] = new Parsed(['field' => $field->name], $at, 1);
            }
        }

        return $found;
    }
}
