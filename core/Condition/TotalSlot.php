<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use VividLedger\Facts\TotalKind;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;
use VividLedger\Schema\Relation;
use VividLedger\Shape\Context;
use VividLedger\Shape\Json;
use VividLedger\Shape\LabelSet;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Typed;

/** What is counted, summed or compared over children: "number of Tickets (where Status is Open)". */
final readonly class TotalSlot implements Slot
{
    private const KEYS = ['of', 'field', 'relation', 'where'];

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        if (! is_array($json) || array_diff(array_keys($json), self::KEYS) !== []) {
            return null;
        }
        $type = self::typeOf($json['relation'] ?? null, $scope);
        $relation = array_search($json['relation'] ?? null, self::relations($scope), true);
        $kind = ['of' => $json['of'] ?? 'count'] + (isset($json['field']) ? ['field' => $json['field']] : []);
        $said = $type === null ? false : array_search($kind, self::kinds($type), false);
        $where = isset($json['where']) ? (new ConditionSlot)->print($json['where'], $scope->about($type), []) : '';

        return $relation === false || $said === false || $where === null ? null
            : "{$said} {$relation}".($where === '' ? '' : " (where {$where})");
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $found = [];
        foreach (self::relations($scope) as $label => $relation) {
            $type = self::typeOf($relation, $scope);
            if ($type === null) {
                continue;
            }
            $kinds = $scope->about($type)->once('totals', static fn (): LabelSet => new LabelSet(self::kinds($type)));
            foreach ($typed->labels($at, $kinds) as [$kind, $behind]) {
                $end = $typed->words($behind, (string) $label) ?? $typed->words($behind, "of {$label}", 3);
                if ($end === null || ! is_array($kind)) {
                    continue;
                }
                $total = new Parsed($kind + ['relation' => $relation], $end);
                array_push($found, $total, ...self::narrowed($typed, $total, $scope->about($type)));
            }
        }

        return $found;
    }

    /** @param  array<mixed>  $json */
    public static function field(array $json, Scope $scope): ?Field
    {
        $kind = TotalKind::tryFrom(is_string($json['of'] ?? null) ? $json['of'] : 'count');
        $field = self::typeOf($json['relation'] ?? null, $scope)?->field(is_string($json['field'] ?? null) ? $json['field'] : '');

        return $kind === TotalKind::Count ? new Field('count', 'count', FieldType::Number, scale: 0) : $field;
    }

    public function schema(): array
    {
        return Json::ref('total');
    }

    /**
     * "(where …)" behind what is counted.
     *
     * @return list<Parsed>
     */
    private static function narrowed(Typed $typed, Parsed $total, Scope $of): array
    {
        $found = [];
        $open = $typed->pattern($total->end, '\(\s*where\b', '(where …)');
        foreach ($open === null ? [] : (new ConditionSlot)->parse($typed, $open[1], $of, []) as $where) {
            $closed = $typed->pattern($where->end, '\)', ')');
            if ($closed !== null) {
                $json = (is_array($total->json) ? $total->json : []) + ['where' => $where->json];
                $found[] = new Parsed($json, $closed[1], $total->cost + $where->cost);
            }
        }

        return $found;
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
        return $scope->once('relations', static function () use ($scope): array {
            $labels = [];
            foreach (self::relationOffers($scope->context()) as $offer) {
                $labels[$offer->label] ??= $offer->value;
            }

            return $labels;
        });
    }

    /** @return array<string, mixed> */
    private static function kinds(RecordType $type): array
    {
        $labels = [];
        foreach (self::kindOffers($type) as $offer) {
            $labels[$offer->label] ??= $offer->value;
        }

        return $labels;
    }

    /** @return list<Offer> */
    public static function relationOffers(Context $context): array
    {
        $offers = [];
        foreach (Relation::of($context->schema, $context->type) as $relation) {
            if ($relation->children) {
                $offers[] = new Offer($relation->many(), $relation->name(), "Of the {$context->type->inSentence()}");

                continue;
            }
            foreach (Relation::of($context->schema, $relation->type) as $further) {
                if ($further->children) {
                    $offers[] = new Offer(
                        "the {$relation->by->label}’s {$further->many()}",
                        "{$relation->by->name}>{$further->name()}",
                        "Of the {$relation->by->label}",
                    );
                }
            }
        }

        return $offers;
    }

    /** @return list<Offer> */
    public static function kindOffers(RecordType $type): array
    {
        $offers = [new Offer(TotalKind::Count->label(''), ['of' => 'count'], merge: true)];
        foreach ([TotalKind::Sum, TotalKind::Latest, TotalKind::Earliest] as $kind) {
            foreach ($type->fields as $field) {
                if ($kind->fits($field->type)) {
                    $offers[] = new Offer($kind->label($field->label), ['of' => $kind->value, 'field' => $field->name], merge: true);
                }
            }
        }

        return $offers;
    }
}
