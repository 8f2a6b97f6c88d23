<?php

declare(strict_types=1);

namespace VividLedger\Facts;

use VividLedger\Schema\FieldType;

/** What is made of many children. */
enum TotalKind: string
{
    case Count = 'count';
    case Sum = 'sum';
    case Latest = 'latest';
    case Earliest = 'earliest';

    /** Between "the" and the children: "the number of", "the sum of Cost over". */
    public function label(string $field): string
    {
        return match ($this) {
            self::Count => 'number of',
            self::Sum => "sum of {$field} over",
            self::Latest => "latest {$field} of",
            self::Earliest => "earliest {$field} of",
        };
    }

    public function fits(FieldType $type): bool
    {
        return match ($this) {
            self::Count => false,
            self::Sum => $type->isDecimal(),
            self::Latest, self::Earliest => $type->isMoment(),
        };
    }
}
