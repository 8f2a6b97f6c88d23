<?php

declare(strict_types=1);

namespace VividLedger\Shape\Slot;

use VividLedger\Schema\Field;
use VividLedger\Shape\Context;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Gap;
use VividLedger\Shape\Json;
use VividLedger\Shape\Node;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Typed;
use VividLedger\Shape\Worded;
use VividLedger\Words\Words;

/** A date of the record: "Due", "the due date", "it is due", "it ends". */
final readonly class DateField implements Worded
{
    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return (new OwnField)->print($json, $scope, $around);
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $fits = static fn (Field $field): bool => $field->type->isMoment();
        $found = (new OwnField($fits))->parse($typed, $at, $scope, $around);
        foreach ($typed->isLoose ? self::verbs($scope) : [] as $said => $name) {
            $end = $typed->words($at, (string) $said, 3);
            if ($end !== null) {
                $found[] = new Parsed($name, $end, 1);
            }
        }

        return Parsed::distinct($found);
    }

    public function read(Context $context, Node $node, Filled $around): ?Field
    {
        return (new OwnField(
            static fn (Field $field): bool => $field->type->isMoment(),
            new Gap('choose a date', Words::say('Choose a date of the {record}.', record: Words::within($context->type->label))),
        ))->read($context, $node, $around);
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
    }

    public function schema(): array
    {
        return Json::NAME;
    }

    /** @return array<string, string> names of dates by what happens on them: "the ticket is due", "it ends" */
    private static function verbs(Scope $scope): array
    {
        return $scope->once('what happens on dates', static function () use ($scope): array {
            $verbs = [];
            foreach ($scope->type->fields as $field) {
                if (! $field->type->isMoment() || str_contains($field->label, ' ')) {
                    continue;
                }
                $label = mb_strtolower($field->label);
                foreach (['it', $scope->type->inSentence(), "this {$scope->type->inSentence()}"] as $who) {
                    $verbs["{$who} is {$label}"] = $field->name;
                    $verbs["{$who} {$label}s"] = $field->name;
                    $verbs["{$who} falls {$label}"] = $field->name;
                    $verbs["{$who} was {$label}"] = $field->name;
                }
            }

            return $verbs;
        });
    }
}
