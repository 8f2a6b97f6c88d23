<?php

declare(strict_types=1);

namespace VividLedger\Text;

use VividLedger\Condition\TotalKind;
use VividLedger\Rule\Reading\TotalReader;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;
use VividLedger\Schema\Relation;
use VividLedger\Shape\Scope;

/** What is counted, summed or compared over children: "number of Tickets (where Status is Open)". */
final class Totals
{
    /**
     * @param  array<mixed>  $json
     */
    public static function print(array $json, Scope $scope): ?string
    {
        $type = self::typeOf($json['relation'] ?? null, $scope);
        $relation = array_search($json['relation'] ?? null, self::relations($scope), true);
        $kind = ['of' => $json['of'] ?? 'count'] + (isset($json['field']) ? ['field' => $json['field']] : []);
        $said = $type === null ? false : array_search($kind, self::kinds($type), false);
        $where = isset($json['where']) ? (new Conditions)->print($json['where'], $scope->about($type), []) : '';

        return $relation === false || $said === false || $where === null || array_diff(
            array_keys($json),
            ['of', 'field', 'relation', 'where'],
        ) !== [] ? null
            : "{$said} {$relation}".($where === '' ? '' : " (where {$where})");
    }

    /** @return ?array<mixed> */
    public static function parse(Cursor $cursor, Scope $scope): ?array
    {
        $start = $cursor->at;
        $best = null;
        $end = $start;
        foreach (self::relations($scope) as $label => $relation) {
            $cursor->at = $start;
            $type = self::typeOf($relation, $scope);
            $kind = $type === null ? null : $cursor->label(self::kinds($type));
            if ($type !== null && $kind !== null && is_array($kind[0]) && $cursor->words((string) $label) && $cursor->at > $end) {
                $best = $kind[0] + ['relation' => $relation];
                $end = $cursor->at;
                if ($cursor->pattern('\(\s*where\b', '(where …)') !== null) {
                    $where = (new Conditions)->parse($cursor, $scope->about($type), []);
                    $isClosed = $where !== null && $cursor->pattern('\)', ')') !== null;
                    $best += $isClosed ? ['where' => $where[0]] : [];
                    $end = $isClosed ? $cursor->at : $end;
                }
            }
        }
        $cursor->at = $end;

        return $best;
    }

    /** @param  array<mixed>  $json */
    public static function field(array $json, Scope $scope): ?Field
    {
        $kind = TotalKind::tryFrom(is_string($json['of'] ?? null) ? $json['of'] : 'count');
        $field = self::typeOf($json['relation'] ?? null, $scope)?->field(is_string($json['field'] ?? null) ? $json['field'] : '');

        return $kind === TotalKind::Count ? new Field('count', 'count', FieldType::Number, scale: 0) : $field;
    }

    private static function typeOf(mixed $relation, Scope $scope): ?RecordType
    {
        [$from, $child] = is_string($relation) && str_contains($relation, '>') ? explode('>', $relation, 2) : [
            '', is_string($relation) ? $relation : '',
        ];
        $type = $from === '' ? $scope->type : $scope->schema->type($scope->schema->path($scope->type, $from)->field->target ?? '');

        return $type === null ? null : Relation::named($scope->schema, $type, $child)?->type;
    }

    /** @return array<string, mixed> */
    private static function relations(Scope $scope): array
    {
        $labels = [];
        foreach (TotalReader::relations($scope->context()) as $offer) {
            $labels[$offer->label] ??= $offer->value;
        }

        return $labels;
    }

    /** @return array<string, mixed> */
    private static function kinds(RecordType $type): array
    {
        $labels = [];
        foreach (TotalReader::kinds($type) as $offer) {
            $labels[$offer->label] ??= $offer->value;
        }

        return $labels;
    }
}
