<?php

declare(strict_types=1);

namespace App\Models\Casts;

use Illuminate\Contracts\Database\Eloquent\CastsAttributes;
use Illuminate\Database\Eloquent\Model;

/**
 * A list of short texts, a line each; nothing for none.
 *
 * @implements CastsAttributes<list<string>, list<string>>
 */
final class Lines implements CastsAttributes
{
    /** @return list<string> */
    public function get(Model $model, string $key, mixed $value, array $attributes): array
    {
        return is_string($value) && $value !== '' ? explode("\n", $value) : [];
    }

    public function set(Model $model, string $key, mixed $value, array $attributes): ?string
    {
        return is_array($value) ? self::text(array_values(array_filter($value, is_string(...)))) : null;
    }

    /** @param  list<string>  $lines */
    public static function text(array $lines): ?string
    {
        return $lines === [] ? null : implode("\n", $lines);
    }
}
