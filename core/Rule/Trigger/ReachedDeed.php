<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Rule\Value\ChoiceVerb;
use VividLedger\Shape\MultiKeySlot;
use VividLedger\Shape\OnlyHeard;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Typed;

/** A choice that somebody reaches by a deed: "somebody closes a ticket" watches the status. */
final readonly class ReachedDeed implements MultiKeySlot
{
    use OnlyHeard;

    /** @param  string  $ending  of the verb */
    public function __construct(private string $ending)
    {
    }

    public function keys(): array
    {
        return ['fields', 'to'];
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $found = [];
        foreach ((new ChoiceVerb($this->ending))->parse($typed, $at, $scope, $around) as $choice) {
            $json = is_array($choice->json) ? $choice->json : [];
            $found[] = $choice->as(['fields' => [$json['field'] ?? ''], 'to' => $json['value'] ?? '']);
        }

        return $found;
    }
}
