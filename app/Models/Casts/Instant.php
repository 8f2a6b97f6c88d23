<?php

declare(strict_types=1);

namespace App\Models\Casts;

use App\Models\Columns;
use Illuminate\Contracts\Database\Eloquent\CastsAttributes;
use Illuminate\Database\Eloquent\Model;

/**
 * A moment, kept in UTC to the second.
 *
 * @implements CastsAttributes<\DateTimeImmutable, \DateTimeInterface|string>
 */
final class Instant implements CastsAttributes
{
    /** A kept object would be written back into the row at every look at any column; a moment never changes in itself. */
    public bool $withoutObjectCaching = true;

    public function get(Model $model, string $key, mixed $value, array $attributes): ?\DateTimeImmutable
    {
        return $value === null ? null : Columns::instant((string) $value);
    }

    public function set(Model $model, string $key, mixed $value, array $attributes): ?string
    {
        return match (true) {
            $value === null => null,
            $value instanceof \DateTimeInterface => Columns::moment(\DateTimeImmutable::createFromInterface($value)),
            default => Columns::moment((string) $value),
        };
    }
}
