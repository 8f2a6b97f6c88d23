<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use VividLedger\Facts\Children;
use VividLedger\Facts\Total;
use VividLedger\Facts\TotalKind;
use VividLedger\Schema\Path;
use VividLedger\Schema\Readable;
use VividLedger\Schema\Relation;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Node;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** Reads "number of Tickets", "sum of Cost over the customer's Tickets", and the conditions on what is counted. */
final class TotalReader
{
    public static function read(Context $context, Node $node): ?Total
    {
        $kind = TotalKind::tryFrom($node->child('of')->text() ?? '') ?? TotalKind::Count;
        [$from, $relation] = self::relation($context, $node);
        $type = $relation?->type;
        $field = $kind === TotalKind::Count || $type === null ? null : $type->field($node->child('field')->text() ?? '');
        $offers = static fn (): array => $type === null ? [] : TotalSlot::kindOffers($type);
        if ($kind !== TotalKind::Count && ($field === null || ! $kind->fits($field->type))) {
            $context->gap(
                $kind->label('…'),
                $node->at,
                Editor::choose('What is made of them', $offers),
                'unknown_field',
                Words::say('Choose what is made of the related records.'),
            );
        } else {
            $context->choice($kind->label($field->label ?? ''), WordRole::Field, $node->at, $offers);
        }
        $word = $relation === null ? 'choose related records'
            : ($from === null ? $relation->many() : "the {$from->field->label}’s {$relation->many()}");
        $relations = static fn (): array => TotalSlot::relationOffers($context);
        if ($relation === null) {
            return $context->gap(
                $word,
                $node->child('relation')->at,
                Editor::choose('Related records', $relations),
                'unknown_relation',
                Words::say('Choose which related records are meant.'),
            );
        }
        $context->choice($word, WordRole::Field, $node->child('relation')->at, $relations);
        if ($kind !== TotalKind::Count && ($field === null || ! $kind->fits($field->type))) {
            return null;
        }

        return new Total(
            $kind,
            new Children($relation->type->name, $relation->by->name),
            $field,
            $from,
            "{$kind->label($field->label ?? '')} {$word}",
        );
    }

    /**
     * Reads the conditions on the children into rows below, once the row of the comparison itself is worded.
     *
     * @return ?Readable the same total narrowed; null when its conditions are unfinished
     */
    public static function where(Context $context, Node $node, Readable $left, int $depth): ?Readable
    {
        if (! $left instanceof Total) {
            return $left;
        }
        if ($node->child('where')->isMissing()) {
            $context->more('+ counting only some', $node->child('where')->at, Editor::conditions());

            return $left;
        }
        $type = $context->schema->type($left->children->type);
        $problems = $context->problems();
        $where = $type === null ? null : ConditionReader::read($context->about($type), $node->child('where'), '', $depth + 1);
        if ($where === null) {
            return $context->problems() > $problems ? null : $context->problem(
                $node->child('where')->at,
                'missing',
                Words::say('Finish the conditions on the related records.'),
            );
        }
        if (! self::isPlain($where)) {
            return $context->problem(
                $node->child('where')->at,
                'too_far',
                Words::say('Conditions on counted records read only their own fields.'),
            );
        }

        return new Total(
            $left->kind,
            new Children($left->children->type, $left->children->by, $where),
            $left->of,
            $left->from,
            $left->label(),
        );
    }

    /** What is counted in the database is laid over with what the decision changed, which own fields decide alone. */
    private static function isPlain(Condition $where): bool
    {
        if ($where instanceof Group) {
            return array_filter($where->parts, static fn (Condition $part): bool => ! self::isPlain($part)) === [];
        }
        foreach ($where->paths() as $path) {
            if ($path->hops !== []) {
                return false;
            }
        }

        return ! $where instanceof Comparison || ! $where->left instanceof Total;
    }

    /** @return array{?Path, ?Relation} the reference to the record whose children are meant, and the relation */
    private static function relation(Context $context, Node $node): array
    {
        $name = $node->child('relation')->text() ?? '';
        [$fromName, $childName] = str_contains($name, '>') ? explode('>', $name, 2) : ['', $name];
        $from = $fromName === '' ? null : $context->schema->path($context->type, $fromName);
        $type = $fromName === '' ? $context->type : $context->schema->type($from->field->target ?? '');
        $relation = $type === null ? null : Relation::named($context->schema, $type, $childName);

        return [$from, $relation?->children === true ? $relation : null];
    }
}
