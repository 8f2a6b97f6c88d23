<?php

declare(strict_types=1);

namespace VividLedger\Rule\Target;

use VividLedger\Condition\ConditionReader;
use VividLedger\Facts\Children;
use VividLedger\Schema\Relation;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/**
 * Reads on which records a line works: nothing for this one, a reference, "ticket.customer" for children, or a name an earlier line gave.
 */
final class Targets
{
    /** @return ?Target null when it cannot be read; the problem is noted */
    public static function read(Context $context, Node $node): ?Target
    {
        $offers = static fn (): array => self::offers($context);
        $name = $node->text() ?? '?';
        if ($name === 'this') {
            return new ThisRecord($context->type);
        }
        if (str_starts_with($name, 'new:')) {
            $made = $context->sheet->made[substr($name, 4)] ?? null;
            if ($made === null) {
                return $context->gap(
                    $name,
                    $node->at,
                    Editor::choose('On which record', $offers),
                    'unknown_record',
                    Words::say('No earlier line makes that record. Choose another.'),
                );
            }
            $context->choice("the new {$made->inSentence()}", WordRole::Field, $node->at, $offers);

            return new MadeRecord(substr($name, 4), $made);
        }
        $relation = Relation::named($context->schema, $context->type, $name);
        if ($relation?->children === true) {
            $context->choice("every {$relation->one()}", WordRole::Field, $node->at, $offers);

            return new ChildRecords(new Children($relation->type->name, $relation->by->name), $relation->type);
        }
        $path = $context->schema->path($context->type, $name);
        $type = $path?->field->target === null ? null : $context->schema->type($path->field->target);
        if ($path === null || $type === null) {
            return $context->gap(
                $name,
                $node->at,
                Editor::choose('On which record', $offers),
                'unknown_record',
                Words::say(
                    'The {record} does not lead to ‘{name}’. Choose another record.',
                    record: Words::within($context->type->label),
                    name: $name,
                ),
            );
        }
        $context->choice("the {$path->label()}", WordRole::Field, $node->at, $offers);

        return new ReferredRecord($path, $type);
    }

    /** Reads which of the children are meant, into rows below the line. */
    public static function where(Context $context, Node $node, Target $target, string $relation): ?Target
    {
        if (! $target instanceof ChildRecords) {
            return $node->isMissing() ? $target : $context->problem(
                $node->at,
                'wrong_type',
                Words::say('Only children can be narrowed by conditions.'),
            );
        }
        if ($node->isMissing()) {
            $context->more('+ only those', $node->at, Editor::conditions());

            return $target;
        }
        $where = ConditionReader::read($context->about($target->type()), $node, 'of those', 1);
        $by = explode('.', $relation)[1] ?? '';

        return $where === null ? null : new ChildRecords(new Children($target->type()->name, $by, $where), $target->type());
    }

    /** @return list<Offer> */
    public static function offers(Context $context): array
    {
        $offers = [new Offer("this {$context->type->inSentence()}", null)];
        foreach (Relation::of($context->schema, $context->type) as $relation) {
            $offers[] = $relation->children
                ? new Offer("every {$relation->one()}", $relation->name(), 'Records that refer to it')
                : new Offer("the {$relation->by->label}", $relation->name(), 'Records it refers to');
            if ($relation->children) {
                continue;
            }
            foreach (Relation::of($context->schema, $relation->type) as $further) {
                if (! $further->children) {
                    $offers[] = new Offer(
                        "the {$relation->by->label} › {$further->by->label}",
                        "{$relation->by->name}.{$further->by->name}",
                        'Records it refers to',
                    );
                }
            }
        }
        foreach ($context->sheet->made as $name => $type) {
            $offers[] = new Offer("the new {$type->inSentence()}", "new:{$name}", 'Made by a line above');
        }

        return $offers;
    }
}
