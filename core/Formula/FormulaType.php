<?php

declare(strict_types=1);

namespace VividLedger\Formula;

use VividLedger\Schema\FieldType;

/** The kinds of value a formula works with. */
enum FormulaType: string
{
    case Number = 'a number';
    case Text = 'text';
    case Truth = 'true or false';
    case Date = 'a date';
    case Moment = 'a moment';
    case Named = 'a choice, person or record';
    case Nothing = 'nothing';

    public static function of(FieldType $type): self
    {
        return match (true) {
            $type->isDecimal() => self::Number,
            $type === FieldType::Tick => self::Truth,
            $type === FieldType::Date => self::Date,
            $type === FieldType::DateTime => self::Moment,
            $type->isNamed() => self::Named,
            default => self::Text,
        };
    }
}
