<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use VividLedger\Schema\Field;
use VividLedger\Schema\Path;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\FieldOffers;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Json;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot\Counted;
use VividLedger\Shape\Slot\FieldPath;
use VividLedger\Shape\Typed;
use VividLedger\Shape\Worded;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** A number, or the field that holds one, {"path"}. */
final readonly class AmountSlot implements Worded
{
    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return match (true) {
            is_string($json) => preg_match('/^-?\d+(\.\d+)?$/D', $json) === 1 ? $json : null,
            is_int($json) => (string) $json,
            is_array($json) && array_keys($json) === ['path'] => (new FieldPath)->print($json['path'], $scope, $around),
            default => null,
        };
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $found = $typed->pattern($at, '(?:[€£$]\s*)?(-?\d++(?:\.\d++)?)(?!,\d)(?:\s*%)?', 'a number');
        if ($found !== null) {
            return [new Parsed($found[0][1], $found[1])];
        }

        return [
            ...array_map(
                static fn (array $word): Parsed => new Parsed((string) $word[0], $word[1], 1),
                array_slice($typed->labels($at, Counted::words(), 3), 0, 1),
            ),
            ...array_map(
                static fn (Parsed $path): Parsed => $path->as(['path' => $path->json]),
                (new FieldPath(static fn (Field $field): bool => $field->type->isDecimal()))->parse($typed, $at, $scope, $around),
            ),
        ];
    }

    public function read(Context $context, Node $node, Filled $around): string|Path|null
    {
        $number = Editor::number('How much', isWhole: false, offers: static fn (): array => array_map(
            static fn (Offer $offer): Offer => new Offer($offer->label, ['path' => $offer->value], $offer->group),
            FieldOffers::names($context, static fn (Field $other): bool => $other->type->isDecimal()),
        ));
        $path = is_array($node->raw) ? $context->schema->path($context->type, $node->child('path')->text() ?? '') : null;
        if ($path !== null && $path->field->type->isDecimal()) {
            $context->word($path->label(), WordRole::Field, $node->at, $number);

            return $path;
        }
        if ((is_string($node->raw) || is_int($node->raw)) && preg_match('/^-?\d{1,15}(\.\d{1,6})?$/', (string) $node->raw) === 1) {
            $context->word((string) $node->raw, WordRole::Value, $node->at, $number);

            return (string) $node->raw;
        }

        return $context->gap('how much', $node->at, $number, 'missing', Words::say('Give a number, or a field that holds one.'));
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
    }

    public function schema(): array
    {
        return [
            'type' => ['string', 'number', 'object'], 'if' => ['type' => 'object'],
            'then' => ['required' => ['path'], 'properties' => ['path' => Json::ref('path')], 'additionalProperties' => false],
        ];
    }
}
