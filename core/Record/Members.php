<?php

declare(strict_types=1);

namespace VividLedger\Record;

/** The members of a set of choices or tags, which a record keeps as one text in a fixed order, joined by commas. */
final class Members
{
    /** @return list<string> */
    public static function of(string|int|bool|null $value): array
    {
        return is_string($value) && $value !== '' ? explode(',', $value) : [];
    }

    /** @param  list<string>  $members in the order to be kept */
    public static function text(array $members): ?string
    {
        return $members === [] ? null : implode(',', array_values(array_unique($members)));
    }
}
