<?php

declare(strict_types=1);

namespace VividLedger\Condition\Given;

use VividLedger\Condition\QueryWriter;
use VividLedger\Facts\View;
use VividLedger\People\Owner;
use VividLedger\Schema\Field;
use VividLedger\Schema\Path;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\FieldOffers;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Keyed;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** The value of another field, of this record or of one it refers to. */
final readonly class GivenField implements Given
{
    public function __construct(private Path $path)
    {
    }

    public static function kind(): string
    {
        return 'field';
    }

    public static function shape(): Shape
    {
        // "Owner is Reviewer" compares two fields; "Owner is the Reviewer" finds a person, with what that takes.
        return Shape::of(self::kind())->says('{bare}')->says('{path}')
            ->slot('bare', new Keyed('path', new ComparedField(isBare: true)))->slot('path', new ComparedField);
    }

    /** Two fields of one kind can hold the same values; a choice only compares with the same choices. */
    public static function alike(Field $one, Field $other): bool
    {
        return match (true) {
            $one->type->isDecimal() => $other->type->isDecimal(),
            $one->type->isText() => $other->type->isText(),
            default => $one->type === $other->type && $one->target === $other->target,
        };
    }

    public static function fits(Field $field): bool
    {
        return true;
    }

    public static function offers(Context $context, Node $node, Field $field): array
    {
        return [new Offer('another field…', ['kind' => self::kind()], 'Or', at: $node->at)];
    }

    public static function read(Context $context, Node $node, Field $field, Editor $editor): ?self
    {
        $at = $node->child('path');
        $name = $at->text() ?? '';
        $path = $context->schema->path($context->type, $name);
        $fields = Editor::choose('Compare with', static fn (): array => [
            ...FieldOffers::names($context, static fn (Field $other): bool => self::alike($field, $other)),
            new Offer('a value…', null, 'Or', at: $node->at),
        ]);
        if ($path === null) {
            return $context->gap(
                $name === '' ? 'choose a field' : $name,
                $at->at,
                $fields,
                'unknown_field',
                $name === '' ? Words::say('Choose the field that {field} is compared with.', field: $field->label)
                    : Words::say('{type} has no field ‘{name}’. Choose another.', type: $context->type->label, name: $name),
            );
        }
        if (! self::alike($field, $path->field)) {
            return $context->gap(
                $path->label(), $at->at, $fields, 'wrong_type', Words::say(
                    '{field} and {other} hold different kinds of value.',
                    field: $field->label,
                    other: $path->label(),
                ),
            );
        }
        $context->word($path->label(), WordRole::Field, $at->at, $fields);

        return new self($path);
    }

    public function value(View $view, Field $for): string|int|bool|null
    {
        return $view->value($this->path);
    }

    public function paths(): array
    {
        return [$this->path];
    }

    public function query(QueryWriter $writer, Field $for): mixed
    {
        return $writer->fieldSide($this->path, $for);
    }
}
