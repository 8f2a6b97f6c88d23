<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

use VividLedger\Condition\WithoutNamed;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Kinds;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Part;
use VividLedger\Shape\Slot\OneShape;
use VividLedger\Shape\Slot\Series;
use VividLedger\Shape\WordedAs;
use VividLedger\Words\Words;

/**
 * The steps of a route, one after another: "the owner’s manager; then Ulla Verne, within 3 days". Where a kept route stands, its
 * steps are taken in its place.
 */
final readonly class StepsSlot extends WordedAs
{
    public const MOST = 10;

    public function read(Context $context, Node $node, Filled $around): ?Route
    {
        $items = $node->items();
        $steps = [];
        $written = [];
        $names = false;
        foreach ($items === [] ? [$node->child('0')] : $items as $index => $item) {
            if ($index > 0) {
                $context->glue('; then');
            }
            if (! KeptRoute::isOne($item)) {
                $steps[] = RouteStep::read($context, $item);
                $written[] = $item->raw;

                continue;
            }
            $names = true;
            $kept = KeptRoute::read($context, $item);
            $route = $kept === null ? null : self::written($context, new Node($kept));
            if ($kept !== null && $route === null) {
                $context->problem($item->at, 'broken_route', Words::say('This route has to be mended in Setup first.'));
            }
            array_push($steps, ...($route === null ? [null] : $route->steps));
            array_push($written, ...($kept ?? []));
        }
        if (count($steps) > self::MOST) {
            return $context->problem($node->at, 'too_many', Words::say('A route has at most {most} steps.', most: self::MOST));
        }
        if ($items !== []) {
            $at = "{$node->at}/".count($items);
            $context->more('+ then', $at, RouteName::all($context->scope()) === [] ? Editor::begin(RouteStep::BEGUN)
                : Editor::choose('Then', static fn (): array => self::nexts($context)));
        }
        $sound = array_values(array_filter($steps));

        return $sound === [] || count($sound) < count($steps) ? null : new Route($sound, $names ? $written : null);
    }

    /** Steps as a rule file writes them, read for themselves; null when they are not sound. */
    public static function written(Context $context, Node $steps): ?Route
    {
        $inner = new Context($context->schema, new WithoutNamed($context->directory), $context->type, $context->zone);
        $inner->row(Part::Line, $steps);
        $route = (new self)->read($inner, $steps, new Filled);

        return $inner->sheet->problems === [] ? $route : null;
    }

    protected function slot(): Series
    {
        return new Series(
            Kinds::once(self::class, static fn (): OneShape => new OneShape(
                static fn (): array => [RouteStep::shape(), KeptRoute::shape()],
                'route_step',
            )),
            1,
            self::MOST,
            joint: 'then',
            alsoJoint: ',?\s*(?:and\s+)?(?:then|afterwards|after that)\b(?:\s+(?:by|from)\b)?',
        );
    }

    /** @return list<Offer> */
    private static function nexts(Context $context): array
    {
        return [new Offer('another step', RouteStep::BEGUN), ...array_map(
            static fn (string $name): Offer => new Offer("the route ‘{$name}’", [KeptRoute::KEY => $name]),
            RouteName::all($context->scope()),
        )];
    }
}
