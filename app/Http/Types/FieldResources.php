<?php

declare(strict_types=1);

namespace App\Http\Types;

use App\Store\Access\AccessScope;
use VividLedger\Rights\FieldAccess;
use VividLedger\Schema\Choice;
use VividLedger\Schema\Field;
use VividLedger\Words\Words;

/** Fields as the API describes them to whoever asks. */
final readonly class FieldResources
{
    public function __construct(private AccessScope $inSight)
    {
    }

    /** @param  string  $type  name of the record type it stands on */
    public function of(string $type, Field $field): FieldResource
    {
        return new FieldResource(
            name: $field->name, label: $field->system ? Words::say($field->label) : $field->label, type: $field->type->value,
            required: $field->required, system: $field->system,
            choices: array_map(
                static fn (Choice $choice): ChoiceResource => new ChoiceResource(
                    $choice->value,
                    $choice->label,
                    $choice->tone,
                    $choice->closes,
                    $choice->isRetired,
                ),
                $field->choices,
            ),
            target: $field->target, scale: $field->scale, maxLength: $field->maxLength, currency: $field->currency, min: $field->min,
            max: $field->max, formula: $field->formula, help: $field->help,
            readOnly: $this->inSight->sight()->role->access($type, $field->name) === FieldAccess::ReadOnly, section: $field->section,
            default: is_int($field->default) ? null : $field->default, unique: $field->unique, requiredAt: $field->requiredAt,
            onDelete: $field->onDelete->value, numbering: $field->numbering,
        );
    }
}
