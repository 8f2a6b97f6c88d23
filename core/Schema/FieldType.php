<?php

declare(strict_types=1);

namespace VividLedger\Schema;

/** The kinds of value a field can hold. A value's shape inside the core is stated beside each. */
enum FieldType: string
{
    case Text = 'text';             // string, one line
    case LongText = 'long_text';    // string, many lines
    case Email = 'email';           // string
    case Phone = 'phone';           // string
    case Link = 'link';             // string
    case Number = 'number';         // decimal string with the field's fixed scale, "12.50"
    case Money = 'money';           // as number, in the field's currency
    case Percent = 'percent';       // as number, "12.5" is 12.5 %
    case Tick = 'tick';             // bool, never empty
    case Date = 'date';             // "2026-11-24"
    case DateTime = 'date_time';    // UTC instant, "2026-11-24T09:40:00Z"
    case Choice = 'choice';         // string, the choice's value
    case Choices = 'choices';       // string, the choices' values in the order offered, joined by commas
    case Tags = 'tags';             // string, free words in lower case and alphabetical order, joined by commas
    case Person = 'person';         // int, the person's id
    case Reference = 'reference';   // int, the other record's id

    public function isText(): bool
    {
        return match ($this) {
            self::Text, self::LongText, self::Email, self::Phone, self::Link => true,
            default => false,
        };
    }

    /** Whether the value is a set of members, see Record\Members. */
    public function isSet(): bool
    {
        return $this === self::Choices || $this === self::Tags;
    }

    public function isDecimal(): bool
    {
        return $this === self::Number || $this === self::Money || $this === self::Percent;
    }

    public function isMoment(): bool
    {
        return $this === self::Date || $this === self::DateTime;
    }

    /** Whether the value names one of a known set: a choice, a person or a record. */
    public function isNamed(): bool
    {
        return $this === self::Choice || $this === self::Person || $this === self::Reference;
    }
}
