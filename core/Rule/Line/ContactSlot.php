<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Path;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot\FieldPath;
use VividLedger\Shape\Typed;
use VividLedger\Shape\Worded;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** The reference to a contact on whose page a task stands too. */
final readonly class ContactSlot implements Worded
{
    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return (new FieldPath)->print($json, $scope, $around);
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        return (new FieldPath(static fn (Field $field): bool => $field->type === FieldType::Reference))
            ->parse($typed, $at, $scope, $around);
    }

    public function read(Context $context, Node $node, Filled $around): ?Path
    {
        $path = $context->schema->path($context->type, $node->text() ?? '');
        $offers = fn (): array => $this->offers($context);
        if ($path === null || $path->field->type !== FieldType::Reference) {
            return $context->gap(
                $node->text() ?? '?',
                $node->at,
                Editor::choose('Contact', $offers),
                'unknown_field',
                Words::say('Choose the reference to the contact.'),
            );
        }
        $context->choice("the {$path->label()}", WordRole::Field, $node->at, $offers);

        return $path;
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
        if (count($this->offers($context)) > 1) {
            $context->more('+ on a contact too', $node->at, Editor::choose('Contact', fn (): array => $this->offers($context)));
        }
    }

    public function schema(): array
    {
        return (new FieldPath)->schema();
    }

    /** @return list<Offer> */
    private function offers(Context $context): array
    {
        $references = array_filter($context->type->ownFields(), static fn (Field $field): bool => $field->type === FieldType::Reference);

        return [
            new Offer('only the record', null),
            ...array_map(static fn (Field $field): Offer => new Offer("the {$field->label}", $field->name), array_values($references)),
        ];
    }
}
