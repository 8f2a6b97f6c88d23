<?php

declare(strict_types=1);

namespace VividLedger\People;

use VividLedger\Shape\Json;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Slot\FieldValue;
use VividLedger\Shape\Slot\Labels;
use VividLedger\Shape\Typed;

/** Somebody at work, by name, or by the first name that only one has; written as the handle. */
final readonly class PersonName implements Slot
{
    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return self::labels($scope)->print($json, $scope, $around);
    }

    /** @return list<Parsed> */
    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        return self::labels($scope)->parse($typed, $at, $scope, $around);
    }

    public function schema(): array
    {
        return Json::text();
    }

    private static function labels(Scope $scope): Labels
    {
        return $scope->once(
            'people by name',
            static fn (): Labels => Labels::of(FieldValue::names($scope), FieldValue::shortNames($scope)),
        );
    }
}
