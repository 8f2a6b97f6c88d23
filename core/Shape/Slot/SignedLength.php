<?php

declare(strict_types=1);

namespace VividLedger\Shape\Slot;

use VividLedger\Shape\InKeys;
use VividLedger\Shape\MultiKeySlot;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Typed;

/** A length of time before or after something, as a number with that sign. */
final readonly class SignedLength implements MultiKeySlot
{
    use InKeys;

    public function __construct(private int $sign)
    {
    }

    public function keys(): array
    {
        return ['amount', 'unit'];
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        $amount = is_array($json) ? ($json['amount'] ?? null) : null;

        return is_array($json) && is_int($amount) && ($amount <=> 0) === $this->sign
            ? (new Length)->print(['amount' => abs($amount)] + $json, $scope, $around) : null;
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $signed = [];
        foreach ((new Length(inDays: true))->parse($typed, $at, $scope, $around) as $length) {
            $json = is_array($length->json) ? $length->json : [];
            $amount = $json['amount'] ?? null;
            if (is_int($amount) && $amount > 0) {
                $signed[] = $length->as(['amount' => $this->sign * $amount] + $json);
            }
        }

        return $signed;
    }

    public function properties(): array
    {
        return (new Length)->properties();
    }

    public function required(): array
    {
        return ['amount', 'unit'];
    }
}
