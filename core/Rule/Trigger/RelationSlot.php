<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Schema\Relation;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Typed;
use VividLedger\Shape\Worded;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** A relation of the record to others, by its name. */
final readonly class RelationSlot implements Worded
{
    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        $found = array_search($json, self::labels($scope), true);

        return $found === false ? null : (string) $found;
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        return array_map(static fn (array $found): Parsed => new Parsed($found[0], $found[1]), $typed->labels($at, self::labels($scope)));
    }

    public function read(Context $context, Node $node, Filled $around): ?Relation
    {
        $own = $context->type;
        $name = $node->text() ?? '';
        $editor = Editor::choose('Related records', static fn (): array => array_map(
            static fn (Relation $relation): Offer => new Offer(
                $relation->one(),
                $relation->name(),
                $relation->children ? 'Records that refer to it' : 'Records it refers to',
            ),
            Relation::of($context->schema, $own),
        ));
        $relation = Relation::named($context->schema, $own, $name);
        if ($relation === null) {
            return $context->gap(
                $name === '' ? 'choose a related record' : $name,
                $node->at,
                $editor,
                'unknown_relation',
                Words::say('Choose which records related to the {record} are watched.', record: Words::within($own->label)),
            );
        }
        $context->word($relation->one(), WordRole::Field, $node->at, $editor);

        return $relation;
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
    }

    public function schema(): array
    {
        return ['type' => 'string', 'pattern' => '^[a-z][a-z0-9_]*(\.[a-z][a-z0-9_]*)?$'];
    }

    /** @return array<string, string> */
    private static function labels(Scope $scope): array
    {
        return $scope->once('relations by name', static function () use ($scope): array {
            $labels = [];
            foreach (Relation::of($scope->schema, $scope->type) as $relation) {
                $labels[$relation->one()] ??= $relation->name();
            }

            return $labels;
        });
    }
}
