<?php

declare(strict_types=1);

namespace VividLedger\Shape\Slot;

use Closure;
use VividLedger\Schema\Field;
use VividLedger\Schema\Schema;
use VividLedger\Shape\Json;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Typed;

/** A field of the record or of one it refers to, by a dotted path: "Customer › Plan", "the customer’s plan". */
final readonly class FieldPath implements Slot
{
    /**
     * @param  ?Closure(Field): bool  $fits  which fields are meant; null for all
     * @param  bool  $isBare  whether no article stands before it: "Owner" is the field, "the owner" the person in it
     */
    public function __construct(private ?Closure $fits = null, private bool $isBare = false)
    {
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return is_string($json) ? $scope->schema->path($scope->type, $json)?->label() : null;
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        if ($this->isBare && $typed->words($at, 'the') !== $at && preg_match('/^(?:the|an?)\b/i', $typed->rest($at)) === 1) {
            return [];
        }

        $fits = fn (?Field $field): bool => $field !== null && ($this->fits === null || ($this->fits)($field));
        $found = array_values(array_filter(
            self::all($typed, $at, $scope),
            static fn (Parsed $one): bool => is_string($one->json) && $fits($scope->schema->path($scope->type, $one->json)?->field),
        ));
        if ($found === []) {
            OwnField::expect($typed, $at, $scope, $fits, leads: true);
        }

        return $found;
    }

    /** @return list<Parsed> */
    public static function all(Typed $typed, int $at, Scope $scope): array
    {
        return $typed->once("path:{$scope->type->name}", $at, static fn (): array => Parsed::distinct([
            ...self::from($typed, $at, $scope, Schema::MAX_HOPS),
            ...($typed->isLoose ? self::turned($typed, $at, $scope) : []),
        ]));
    }

    public function schema(): array
    {
        return Json::ref('path');
    }

    /** @return list<Parsed> */
    private static function from(Typed $typed, int $at, Scope $scope, int $hops): array
    {
        $found = [];
        foreach (OwnField::all($typed, $at, $scope) as $one) {
            $found[] = $one;
            $name = is_string($one->json) ? $one->json : '';
            $next = $hops === 0 ? null : $scope->schema->behind($scope->type->field($name));
            if ($next === null) {
                continue;
            }
            $arrow = $typed->pattern($one->end, '›', '›', 0);
            $behind = $arrow[1] ?? $typed->words($one->end, '’s', 3);
            $cost = $arrow !== null ? 0 : ($behind === null ? 2 : 1);
            if ($behind === null && ! $typed->isLoose) {
                continue;
            }
            $about = $scope->about($next);
            $behinds = self::from($typed, $behind ?? $one->end, $about, $hops - 1);
            if ($behinds === [] && $arrow !== null) {
                OwnField::expect($typed, $arrow[1], $about, static fn (?Field $field): bool => true);
            }
            foreach ($behinds as $further) {
                $path = is_string($further->json) ? "{$name}.{$further->json}" : $name;
                $found[] = new Parsed($path, $further->end, $one->cost + $further->cost + $cost);
            }
        }

        return $found;
    }

    /**
     * "The plan of the customer".
     *
     * @return list<Parsed>
     */
    private static function turned(Typed $typed, int $at, Scope $scope): array
    {
        $found = [];
        foreach ($scope->type->fields as $reference) {
            $type = $scope->schema->behind($reference);
            if ($type === null) {
                continue;
            }
            $about = $scope->about($type);
            foreach ($typed->labels($at, OwnField::set($about), 3) as [$name, $end]) {
                $behind = $typed->words($end, "of the {$reference->label}", 3);
                if ($behind !== null) {
                    $found[] = new Parsed("{$reference->name}.{$name}", $behind, 1);
                }
            }
        }

        return $found;
    }
}
