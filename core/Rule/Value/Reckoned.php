<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use VividLedger\Condition\FormulaSlot;
use VividLedger\Formula\Formula;
use VividLedger\Record\InvalidValue;
use VividLedger\Record\Record;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Schema\Field;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Shape;
use VividLedger\Words\Words;

/** What a formula gives. */
final readonly class Reckoned implements AssignedValue
{
    private function __construct(private Formula $formula)
    {
    }

    public static function kind(): string
    {
        return 'formula';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('the formula {formula}')->slot('formula', new FormulaSlot);
    }

    public static function deeds(): null
    {
        return null;
    }

    public static function fits(Field $field): bool
    {
        return ! $field->type->isSet();
    }

    public static function offers(Context $context, Field $field, bool $isNew): array
    {
        return [new Offer('a formula…', ['kind' => self::kind()], 'Or')];
    }

    public static function read(Context $context, Node $node, Field $field, Editor $editor): ?self
    {
        $read = self::shape()->opens(static fn (): Editor => $editor)->read($context, $node);
        if ($read === null) {
            return null;
        }
        $formula = $read->the('formula', Formula::class);

        return $formula->fits($field) ? new self($formula)
            : $context->problem(
                $node->child('formula')->at,
                'wrong_type',
                Words::say(
                    'The formula gives {type}, which {field} does not take.',
                    type: $formula->term->type->value,
                    field: $field->label,
                ),
                1,
            );
    }

    public function for(Field $field, ActionContext $performance, ?Record $target): string|int|bool|null
    {
        $value = $this->formula->value($performance->view(), $field);
        if ($value === null && $field->required) {
            throw new InvalidValue(
                'required',
                Words::say('The formula comes out empty, and {field} has to be filled in.', field: $field->label),
            );
        }

        return $value;
    }
}
