<?php

declare(strict_types=1);

namespace VividLedger\Shape;

use Closure;

/**
 * What the registries of kinds have in common: each names its own kinds, and others can be added to it. What is made of a
 * registry once is made again when it has grown.
 */
final class Kinds
{
    /** @var array<string, list<mixed>> by registry */
    private static array $added = [];

    /** @var array<string, mixed> */
    private static array $made = [];

    /**
     * @template T
     *
     * @param  class-string  $registry
     * @param  list<T>  $own
     * @return list<T>
     */
    public static function all(string $registry, array $own): array
    {
        /** @var list<T> $added */
        $added = self::$added[$registry] ?? [];

        return $added === [] ? $own : [...$own, ...$added];
    }

    /** @param  class-string  $registry */
    public static function add(string $registry, mixed $kind): void
    {
        self::$added[$registry][] = $kind;
        self::$made = [];
    }

    /** Whether nothing was added. */
    public static function areOurs(): bool
    {
        return self::$added === [];
    }

    /** What was added is known no more. */
    public static function forget(): void
    {
        self::$added = self::$made = [];
    }

    /**
     * @template T
     *
     * @param  Closure(): T  $make
     * @return T
     */
    public static function once(string $name, Closure $make): mixed
    {
        /** @var array<string, T> $made */
        $made = &self::$made;

        return $made[$name] ??= $make();
    }
}
