<?php

declare(strict_types=1);

namespace VividLedger\Rule\Target;

use VividLedger\Schema\RecordType;
use VividLedger\Schema\Relation;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot\Labels;
use VividLedger\Shape\Typed;
use VividLedger\Shape\Worded;

/** On which record a line works: "the Customer", "every Visit", "the new record “quote”". */
final readonly class TargetSlot implements Worded
{
    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        if (is_string($json) && str_starts_with($json, 'new:')) {
            return 'the new record '.Typed::quote(substr($json, 4));
        }
        $found = array_search($json, self::labels($scope), true);

        return $found === false ? null : (string) $found;
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $made = $typed->words($at, 'the new record');
        $name = $made === null ? null : $typed->quoted($made);

        return [
            ...($name === null ? [] : [new Parsed("new:{$name[0]}", $name[1])]),
            ...Labels::of(self::labels($scope), self::loosely($scope))->parse($typed, $at, $scope, $around),
        ];
    }

    /** @param  array<mixed>  $around  the line, which can name a target */
    public static function typeOf(Scope $scope, array $around): ?RecordType
    {
        $on = $around['on'] ?? null;
        if ($on === null) {
            return $scope->type;
        }
        if (! is_string($on) || str_starts_with($on, 'new:')) {
            // Which record that is, an earlier line says; its fields are those of any type.
            return is_string($on) ? $scope->schema->type(preg_replace('/_\d+$/', '', substr($on, 4)) ?? '') : null;
        }
        $relation = Relation::named($scope->schema, $scope->type, $on);
        $target = $relation?->children === true ? $relation->type->name : $scope->schema->path($scope->type, $on)?->field->target;

        return $scope->schema->type($target ?? '');
    }

    public function read(Context $context, Node $node, Filled $around): ?Target
    {
        return Targets::read($context, $node);
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
        $context->more('on …', $node->at, Editor::choose('On which record', static fn (): array => Targets::offers($context)));
    }

    public function schema(): array
    {
        return ['type' => 'string'];
    }

    /** @return array<string, string> */
    private static function labels(Scope $scope): array
    {
        return $scope->once('targets', static function () use ($scope): array {
            $labels = [];
            foreach (Targets::offers($scope->context()) as $offer) {
                if (is_string($offer->value)) {
                    $labels[$offer->label] ??= $offer->value;
                }
            }

            return $labels;
        });
    }

    /** @return array<string, string> other words for children: "all visits", "its visits" */
    private static function loosely(Scope $scope): array
    {
        return $scope->once('targets, loosely', static function () use ($scope): array {
            $labels = [];
            foreach (Relation::of($scope->schema, $scope->type) as $relation) {
                foreach ($relation->children ? ['each '.$relation->one(), 'all '.$relation->many(), 'its '.$relation->many()]
                    : [] as $label) {
                    $labels[$label] ??= $relation->name();
                }
                if (! $relation->children) {
                    $labels["its {$relation->by->label}"] ??= $relation->name();
                }
            }

            return $labels;
        });
    }
}
