<?php

declare(strict_types=1);

namespace VividLedger\Shape;

use Closure;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Path;
use VividLedger\Schema\RecordType;

/** The fields of a record, and behind each reference those of what it refers to, as they are offered. */
final class FieldOffers
{
    private const DEEPEST = 2;

    /**
     * @param  ?Closure(Field): bool  $fits  null for all
     * @return list<Path>
     */
    public static function paths(Context $context, ?Closure $fits = null): array
    {
        $paths = [];
        foreach ($context->type->fields as $field) {
            if ($fits === null || $fits($field)) {
                $paths[] = new Path([], $field);
            }
        }

        return [...$paths, ...self::further($context, $context->type, [], $fits ?? static fn (): bool => true)];
    }

    /**
     * @param  ?Closure(Field): bool  $fits
     * @return list<Offer> their dotted names
     */
    public static function names(Context $context, ?Closure $fits = null): array
    {
        return array_map(
            static fn (Path $path): Offer => new Offer($path->label(), $path->name(), self::group($context, $path)),
            self::paths($context, $fits),
        );
    }

    /**
     * @param  ?Closure(Field): bool  $fits
     * @return list<Offer> names of the record's own fields
     */
    public static function own(Context $context, ?Closure $fits = null): array
    {
        return array_values(array_map(
            static fn (Field $field): Offer => new Offer($field->label, $field->name),
            array_filter($context->type->fields, $fits ?? static fn (): bool => true),
        ));
    }

    /** The heading a path is listed under. */
    public static function group(Context $context, Path $path): string
    {
        return $path->hops === [] ? $context->type->label
            : implode(' › ', array_map(static fn (Field $hop): string => $hop->label, $path->hops));
    }

    /**
     * @param  list<Field>  $hops
     * @param  Closure(Field): bool  $fits
     * @return list<Path>
     */
    private static function further(Context $context, RecordType $type, array $hops, Closure $fits): array
    {
        $paths = [];
        foreach ($type->fields as $hop) {
            $behind = $context->schema->behind($hop);
            if ($behind === null || ($hop->system && $hop->type !== FieldType::Person)) {
                continue;
            }
            $way = [...$hops, $hop];
            foreach ($behind->fields as $field) {
                if ($fits($field)) {
                    $paths[] = new Path($way, $field);
                }
            }
            if (count($way) < self::DEEPEST && $hop->type !== FieldType::Person) {
                array_push($paths, ...self::further($context, $behind, $way, $fits));
            }
        }

        return $paths;
    }
}
