<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Shape;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** Steps that are kept in Setup and stand in a route by their name: "the route “Large quotes”". */
final class KeptRoute
{
    public const KEY = 'route';

    public static function shape(): Shape
    {
        return Shape::of()->says('the route {route}')->orSaid('route {route}', 'the {route} route')->slot(self::KEY, new RouteName);
    }

    public static function isOne(Node $node): bool
    {
        return ! $node->child(self::KEY)->isMissing();
    }

    /**
     * Reads its name and words it.
     *
     * @return ?list<mixed> its steps as they are kept; null when there is no such route
     */
    public static function read(Context $context, Node $node): ?array
    {
        $at = $node->child(self::KEY)->at;
        $name = $node->child(self::KEY)->text() ?? '';
        $kept = $context->directory->route($context->type->name, $name);
        $editor = Editor::choose('Routes', static fn (): array => self::offers($context));
        if ($kept === null) {
            $message = Words::say(
                'There is no route ‘{name}’ for {type}. Routes are kept in Setup.',
                name: $name,
                type: $context->type->plural,
            );

            return $context->gap($name === '' ? 'choose a route' : $name, $at, $editor, 'unknown_route', $message);
        }
        $context->glue('the route');
        $context->word("‘{$name}’", WordRole::Value, $at, $editor);

        return $kept;
    }

    /** @return list<Offer> */
    private static function offers(Context $context): array
    {
        return array_map(
            static fn (string $name): Offer => new Offer($name, $name),
            RouteName::all($context->scope()),
        );
    }
}
