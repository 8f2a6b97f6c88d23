<?php

declare(strict_types=1);

namespace VividLedger\Listing;

use VividLedger\Schema\Path;

/** A column of a list: a field, at hand or over references, or something that a list knows besides. */
final readonly class Column
{
    /** The number by which people call a record. */
    public const NUMBER = 'number';

    /** Since when the record has been at its stage. */
    public const SINCE = '@since';

    /** What is pencilled in for the record next. */
    public const NEXT = '@next';

    private const MOST_WIDE = 900;

    /**
     * @param  string  $of  a field's name, a path such as "customer.plan", or one of the constants
     * @param  ?Path  $path  the field; null for what is no field
     * @param  ?int  $width  in pixels; null for what the content needs
     */
    public function __construct(public string $of, public ?Path $path, public string $label, public ?int $width = null)
    {
    }

    /** Whether rows can be sorted by it. */
    public function isSortable(): bool
    {
        return $this->of !== self::NEXT;
    }

    /**
     * @param  list<self>  $columns
     * @return list<Path> what is read over references for them
     */
    public static function far(array $columns): array
    {
        $paths = array_map(static fn (self $column): ?Path => $column->path, $columns);

        return array_values(array_filter($paths, static fn (?Path $path): bool => $path !== null && $path->hops !== []));
    }

    /** @return array{string, ?int} what "customer.plan:120" names, and how wide it is to be */
    public static function parted(string $written): array
    {
        [$of, $width] = [...explode(':', $written, 2), ''];

        return [$of, ctype_digit($width) && (int) $width <= self::MOST_WIDE ? max(40, (int) $width) : null];
    }
}
