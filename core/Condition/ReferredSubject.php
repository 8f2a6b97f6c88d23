<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use VividLedger\Shape\MultiKeySlot;
use VividLedger\Shape\OnlyHeard;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot\OwnField;
use VividLedger\Shape\Typed;

/** A field of a record that is referred to, as it is said of that record: "the customer is on plan", "the customer has the plan". */
final readonly class ReferredSubject implements MultiKeySlot
{
    use OnlyHeard;

    private const SAID = ['is on', 'has', 'with', 'is in', 'is of', 'is at'];

    /** @param  list<string>  $said  the words between the two */
    public function __construct(private array $said = self::SAID)
    {
    }

    public function keys(): array
    {
        return ['field'];
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $found = [];
        foreach (OwnField::all($typed, $at, $scope) as $reference) {
            $name = is_string($reference->json) ? $reference->json : '';
            $type = $scope->schema->behind($scope->type->field($name));
            foreach ($type === null ? [] : $this->said as $said) {
                $behind = $typed->words($reference->end, $said, 3);
                foreach ($behind === null ? [] : OwnField::all($typed, $behind, $scope->about($type)) as $one) {
                    $field = is_string($one->json) ? $one->json : '';
                    $found[] = new Parsed(['field' => "{$name}.{$field}"], $one->end, 1);
                }
            }
        }

        return Parsed::distinct($found);
    }
}
