<?php

declare(strict_types=1);

namespace VividLedger\Condition\Given;

use VividLedger\Schema\Field;
use VividLedger\Shape\Json;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Slot\FieldPath;
use VividLedger\Shape\Typed;

/** Another field that can hold the same values as the one it is compared with. */
final readonly class ComparedField implements Slot
{
    /** @param  bool  $isBare  whether it stands without an article */
    public function __construct(private bool $isBare = false)
    {
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return (new FieldPath)->print($json, $scope, $around);
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $compared = $scope->field;

        return array_map(
            // Of a person, "the Reviewer" is rather whoever is found there.
            fn (Parsed $one): Parsed => $this->isBare ? $one : $one->costlier(1),
            (new FieldPath(
                static fn (Field $field): bool => $compared === null || GivenField::alike($compared, $field),
                $this->isBare,
            ))->parse($typed, $at, $scope, $around),
        );
    }

    public function schema(): array
    {
        return Json::ref('path');
    }
}
