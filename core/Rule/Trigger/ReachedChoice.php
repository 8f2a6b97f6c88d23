<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Condition\ImpliedChoice;
use VividLedger\Shape\MultiKeySlot;
use VividLedger\Shape\OnlyHeard;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Typed;

/** A choice that is reached, or left, by its label alone: "when a quote is won" watches the stage. */
final readonly class ReachedChoice implements MultiKeySlot
{
    use OnlyHeard;

    /** @param  string  $side  "to" or "from" */
    public function __construct(private string $side)
    {
    }

    public function keys(): array
    {
        return ['fields', $this->side];
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $found = [];
        foreach ((new ImpliedChoice)->parse($typed, $at, $scope, $around) as $choice) {
            $json = is_array($choice->json) ? $choice->json : [];
            $found[] = $choice->as(['fields' => [$json['field'] ?? ''], $this->side => $json['value'] ?? '']);
        }

        return $found;
    }
}
