<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use VividLedger\Condition\Operator\Operand;
use VividLedger\Condition\Operator\Operator;
use VividLedger\Condition\Operator\Operators;
use VividLedger\Facts\TotalKind;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Path;
use VividLedger\Schema\Readable;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\FieldOffers;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;

/** Choosing what a condition looks at, and how that is compared. What was compared stays where it still fits. */
final class Subjects
{
    public static function chooser(Context $context, Node $node): Editor
    {
        return Editor::choose('Field', static function () use ($context, $node): array {
            $offers = array_map(static fn (Path $path): Offer => new Offer(
                $path->label(),
                self::compared($node, $path->name(), $path->field->type, $path->hops === []),
                FieldOffers::group($context, $path),
                at: $node->at,
                isChosen: $node->child('field')->text() === $path->name(),
            ), FieldOffers::paths($context));
            foreach (TotalSlot::relationOffers($context) as $relation) {
                $offers[] = new Offer(
                    "number of {$relation->label}",
                    ['kind' => 'over', 'total' => ['of' => TotalKind::Count->value, 'relation' => $relation->value]],
                    'Counted',
                    at: $node->at,
                    isChosen: $node->child('total')->child('relation')->raw === $relation->value,
                );
            }
            foreach (Statements::all() as $statement) {
                $isChosen = (Statements::byKind()[$node->kind()] ?? null) === $statement;
                foreach ($statement::offers($context, $node) as $offer) {
                    $offers[] = new Offer($offer->label, $offer->value, $offer->group, at: $node->at, isChosen: $isChosen);
                }
            }

            return $offers;
        });
    }

    public static function operators(Context $context, Node $node, Readable $left): Editor
    {
        $type = $left->field()->type;
        $isOwn = $left instanceof Path && $left->hops === [] && $context->sheet->isOfChange;

        $fits = static fn (Operator $operator): bool => $isOwn || ! Operators::isOfChange($operator);

        return Editor::choose($left->field()->label, static fn (): array => array_map(static fn (Operator $operator): Offer => new Offer(
            Operators::label($operator, $type),
            self::kept($node, $operator),
            at: $node->at,
            isChosen: $operator->kind() === $node->kind(),
        ), array_values(array_filter(Operators::fitting($type), $fits))));
    }

    /** @return array<string, mixed> a comparison of another field, by the operator it had where that fits */
    private static function compared(Node $node, string $path, FieldType $type, bool $isOwn): array
    {
        $fitting = array_filter(
            Operators::fitting($type),
            static fn (Operator $operator): bool => $isOwn || ! Operators::isOfChange($operator),
        );
        $had = Operators::all()[$node->kind()] ?? null;
        $operator = in_array($had, $fitting, true) ? $had : reset($fitting);

        return ['kind' => $operator === false ? 'is' : $operator->kind(), 'field' => $path];
    }

    /** @return array<string, mixed> the comparison by another operator, with what it compares with as far as that still says something */
    private static function kept(Node $node, Operator $operator): array
    {
        $json = is_array($node->raw) ? $node->raw : [];
        $had = Operators::all()[$node->kind()] ?? null;
        $value = $json['value'] ?? null;
        $values = is_array($json['values'] ?? null) ? array_values($json['values']) : ($value === null ? [] : [$value]);
        $isAlike = $had === null || ($had->operand() === Operand::Span) === ($operator->operand() === Operand::Span)
            && Operators::isOfPerson($had) === Operators::isOfPerson($operator);
        $rest = [];
        foreach ($json as $key => $one) {
            if (is_string($key) && ! in_array($key, ['kind', 'value', 'values'], true)) {
                $rest[$key] = $one;
            }
        }
        $plain = array_values(array_filter($values, static fn (mixed $one): bool => ! is_array($one)));

        return ['kind' => $operator->kind()] + $rest + match (true) {
            ! $isAlike || $values === [] => [],
            $operator->operand() === Operand::Many => $plain === [] ? [] : ['values' => $plain],
            $operator->operand() === Operand::Nothing => [],
            default => ['value' => $values[0]],
        };
    }
}
