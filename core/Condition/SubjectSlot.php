<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use Closure;
use VividLedger\Condition\Operator\Operator;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\InKeys;
use VividLedger\Shape\Json;
use VividLedger\Shape\MultiKeySlot;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot\FieldPath;
use VividLedger\Shape\Typed;

/** What a comparison looks at, {"field"} or {"total"}: a field along a path, or a number over related records. */
final readonly class SubjectSlot implements MultiKeySlot
{
    use InKeys;

    /**
     * @param  Closure(Field): bool  $fits
     * @param  bool  $isTotal  whether a number over related records fits too
     */
    private function __construct(private Closure $fits, private bool $isTotal)
    {
    }

    public static function fitting(Operator $operator): self
    {
        return new self(
            static fn (Field $field): bool => $operator->fits($field->type),
            $operator->fits(FieldType::Number) || $operator->fits(FieldType::Date),
        );
    }

    public static function of(FieldType ...$types): self
    {
        return new self(
            static fn (Field $field): bool => in_array($field->type, $types, true),
            array_intersect(array_column($types, 'name'), ['Number', 'Money', 'Percent', 'Date', 'DateTime']) !== [],
        );
    }

    public function keys(): array
    {
        return ['field', 'total'];
    }

    /** @param  array<mixed>  $json */
    public static function field(array $json, Scope $scope): ?Field
    {
        $total = $json['total'] ?? null;
        $name = $json['field'] ?? null;

        return match (true) {
            is_array($total) => TotalSlot::field($total, $scope),
            is_string($name) => $scope->schema->path($scope->type, $name)?->field,
            default => null,
        };
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        $json = is_array($json) ? $json : [];
        $field = self::field($json, $scope);
        if ($field === null || ! ($this->fits)($field)) {
            return null;
        }

        return isset($json['total']) ? (new TotalSlot)->print($json['total'], $scope, [])
            : (new FieldPath)->print($json['field'] ?? null, $scope, []);
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $all = $typed->once("subject:{$scope->type->name}", $at, static fn (): array => [
            ...array_map(
                static fn (Parsed $path): Parsed => $path->as(['field' => $path->json]),
                (new FieldPath)->parse($typed, $at, $scope, []),
            ),
            ...array_map(
                static fn (Parsed $total): Parsed => $total->as(['total' => $total->json]),
                (new TotalSlot)->parse($typed, $at, $scope, []),
            ),
        ]);

        return array_values(array_filter($all, function (Parsed $one) use ($scope): bool {
            $field = is_array($one->json) ? self::field($one->json, $scope) : null;

            return $field !== null && ($this->fits)($field);
        }));
    }

    public function fits(Field $field): bool
    {
        return ($this->fits)($field);
    }

    public function properties(): array
    {
        return ['field' => Json::ref('path')] + ($this->isTotal ? ['total' => Json::ref('total')] : []);
    }

    public function required(): array
    {
        return $this->isTotal ? [] : ['field'];
    }
}
