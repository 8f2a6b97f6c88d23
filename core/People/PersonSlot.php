<?php

declare(strict_types=1);

namespace VividLedger\People;

use VividLedger\Shape\Context;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Json;
use VividLedger\Shape\Kinds;
use VividLedger\Shape\Node;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Typed;
use VividLedger\Shape\Worded;

/** A person as a rule finds one: "the owner’s manager", "the next of Sales in turn". */
final readonly class PersonSlot implements Worded
{
    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        foreach (self::shapes() as $shape) {
            $text = $shape->print($json, $scope, $around);
            if ($text !== null) {
                return $text;
            }
        }

        return null;
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        return $typed->once("person:{$scope->type->name}", $at, static function () use ($typed, $at, $scope): array {
            $found = [];
            $open = [];
            foreach (self::shapes() as $shape) {
                array_push($open, ...$shape->parse($typed, $at, $scope, []));
            }
            while ($open !== []) {
                array_push($found, ...$open);
                $grown = [];
                foreach ($open as $seed) {
                    foreach (self::shapes() as $shape) {
                        array_push($grown, ...$shape->grown($seed, $typed, $scope));
                    }
                }
                $open = $grown;
            }

            return Parsed::distinct($found);
        });
    }

    public function read(Context $context, Node $node, Filled $around): ?Who
    {
        return PersonExpressions::word($context, $node);
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
    }

    public function schema(): array
    {
        return Json::ref('person');
    }

    /** @return list<Shape> */
    private static function shapes(): array
    {
        return Kinds::once(self::class, static fn (): array => array_map(
            static fn (string $expression): Shape => $expression::shape(),
            PersonExpressions::all(),
        ));
    }
}
