<?php

declare(strict_types=1);

namespace App\Http\Types;

use App\Store\Access\AccessScope;
use VividLedger\Rights\FieldAccess;
use VividLedger\Schema\Choice;
use VividLedger\Schema\Field;
use VividLedger\Words\Words;

/** Fields as the API describes them to whoever asks. */
final readonly class FieldShapes
{
    public function __construct(private AccessScope $inSight)
    {
    }

    /** @param  string  $type  name of the record type it stands on */
    public function of(string $type, Field $field): FieldShape
    {
        return new FieldShape(
            // Its own fields the application says itself; rules call them by their English names.
            $field->name, $field->system ? Words::say($field->label) : $field->label, $field->type->value, $field->required, $field->system,
            array_map(
                static fn (Choice $choice): ChoiceShape => new ChoiceShape(
                    $choice->value,
                    $choice->label,
                    $choice->tone,
                    $choice->closes,
                    $choice->isRetired,
                ),
                $field->choices,
            ),
            $field->target, $field->scale, $field->maxLength, $field->currency, $field->min, $field->max, $field->formula, $field->help,
            $this->inSight->sight()->role->access($type, $field->name) === FieldAccess::ReadOnly,
            $field->section, is_int($field->default) ? null : $field->default, $field->unique, $field->requiredAt, $field->onDelete->value,
            $field->numbering,
        );
    }
}
