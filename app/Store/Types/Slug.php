<?php

declare(strict_types=1);

namespace App\Store\Types;

use Illuminate\Support\Str;

/** The name by which rules and columns know what people call something. It is made once, and stays when the words change. */
final class Slug
{
    private const LONGEST = 40;

    /** Names that mean something else wherever fields and record types are named. */
    private const TAKEN = [
        'id', 'version', 'people', 'person', 'created_at', 'created_by', 'updated_at', 'updated_by', 'number', 'record', 'slip',
    ];

    /** @param  list<string>  $others  names there are */
    public static function of(string $label, array $others): string
    {
        $plain = trim(substr(Str::slug(Str::ascii($label), '_'), 0, self::LONGEST), '_');
        $plain = preg_match('/^[a-z]/', $plain) === 1 ? $plain : "a_{$plain}";
        $plain = rtrim($plain, '_');
        for ($nth = 1, $name = $plain; in_array($name, $others, true) || in_array($name, self::TAKEN, true);) {
            $name = substr($plain, 0, self::LONGEST - 4).'_'.++$nth;
        }

        return $name;
    }
}
