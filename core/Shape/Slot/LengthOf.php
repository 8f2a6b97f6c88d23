<?php

declare(strict_types=1);

namespace VividLedger\Shape\Slot;

use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Typed;

/** A length of time in an object of its own. */
final readonly class LengthOf implements Slot
{
    /**
     * @param  bool  $bare  whether a unit may stand without a number: "once a week"
     * @param  bool  $inDays  whether a week that is not counted is one of seven days
     */
    public function __construct(private bool $bare = false, private bool $inDays = false)
    {
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return is_array($json) && array_diff(array_keys($json), ['amount', 'unit']) === [] ? (new Length)->print($json, $scope, $around) : null;
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        return $this->bare ? (new Interval)->lengths($typed, $at, $scope) : (new Length($this->inDays))->parse($typed, $at, $scope, $around);
    }

    public function schema(): array
    {
        return (new Length)->schema();
    }
}
