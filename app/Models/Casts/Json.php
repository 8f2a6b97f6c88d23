<?php

declare(strict_types=1);

namespace App\Models\Casts;

use App\Models\Columns;
use Illuminate\Contracts\Database\Eloquent\CastsAttributes;
use Illuminate\Database\Eloquent\Model;

/**
 * JSON as it is kept, letters and slashes as they are; what is nothing is no value.
 *
 * @implements CastsAttributes<mixed, mixed>
 */
final class Json implements CastsAttributes
{
    private const DEPTH = 512;

    public function get(Model $model, string $key, mixed $value, array $attributes): mixed
    {
        return $value === null ? null : json_decode((string) $value, true, self::DEPTH, JSON_THROW_ON_ERROR);
    }

    public function set(Model $model, string $key, mixed $value, array $attributes): ?string
    {
        return $value === null ? null : Columns::json($value);
    }
}
