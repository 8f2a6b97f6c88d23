<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use VividLedger\Schema\Field;
use VividLedger\Schema\Path;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\FieldOffers;
use VividLedger\Shape\FieldReader;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Json;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot\FieldPath;
use VividLedger\Shape\Typed;
use VividLedger\Shape\Worded;
use VividLedger\Words\Words;

/** A field whose value the field that is set can hold. */
final readonly class CopiedField implements Worded
{
    /** @param  bool  $isBare  whether it stands without an article */
    public function __construct(private bool $isBare = false)
    {
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return (new FieldPath)->print($json, $scope, $around);
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        return (new FieldPath(
            static fn (Field $from): bool => $scope->field === null || CopiedValue::alike($from, $scope->field),
            $this->isBare,
        ))->parse($typed, $at, $scope, $around);
    }

    public function read(Context $context, Node $node, Filled $around): ?Path
    {
        $field = $context->field();
        $fields = Editor::choose('Copy from', static fn (): array => [
            ...FieldOffers::names($context, static fn (Field $from): bool => CopiedValue::alike($from, $field)),
            new Offer('something else…', null, 'Or', at: substr($node->at, 0, (int) strrpos($node->at, '/'))),
        ]);
        $path = FieldReader::path($context, $node, $fields, Words::say('Choose the field to copy.'));

        return $path === null || CopiedValue::alike($path->field, $field) ? $path : $context->problem(
            $node->at,
            'wrong_type',
            Words::say('{path} does not fit {field}: they hold different kinds of value.', path: $path->label(), field: $field->label),
        );
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
    }

    public function schema(): array
    {
        return Json::ref('path');
    }
}
