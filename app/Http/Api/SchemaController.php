<?php

declare(strict_types=1);

namespace App\Http\Api;

use App\Http\Api\Describe\Ok;
use App\Http\Api\Shape\ChoiceShape;
use App\Http\Api\Shape\FieldShape;
use App\Http\Api\Shape\OfferShape;
use App\Http\Api\Shape\OperatorShape;
use App\Http\Api\Shape\SchemaShape;
use App\Http\Api\Shape\TypeShape;
use App\Store\SchemaStore;
use OpenApi\Attributes as OA;
use VividLedger\Condition\ConditionReader;
use VividLedger\Condition\Operator\ChangeOperator;
use VividLedger\Condition\Operator\Operator;
use VividLedger\Condition\Operator\Operators;
use VividLedger\Rule\Guard\RepeatGuards;
use VividLedger\Rule\Line\Lines;
use VividLedger\Rule\Timing\Timings;
use VividLedger\Rule\Trigger\Triggers;
use VividLedger\Schema\Choice;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\People;
use VividLedger\Schema\RecordType;
use VividLedger\Template\Piece;
use VividLedger\Template\Pieces;
use VividLedger\Time\Unit;

/** The record types, and all that the sentences of a rule can be made of. */
final class SchemaController extends Controller
{
    #[
        OA\Get(
            path: '/api/schema',
            operationId: 'schema',
            description: 'The record types with their fields, and what the sentences of a rule can be made of.',
            tags: ['schema'],
            responses: [new Ok(SchemaShape::class)],
        ),
    ]
    public function show(SchemaStore $schemas): SchemaShape
    {
        return new SchemaShape(
            array_map(
                fn (RecordType $type): TypeShape => $this->describe($type, Pieces::besides($schemas->schema(), $type)),
                array_values($schemas->schema()->types),
            ),
            $this->describe(People::type()),
            array_map($this->operator(...), array_values(Operators::all())),
            array_map(static fn (string $trigger): OfferShape => new OfferShape($trigger::kind(), $trigger::label()), Triggers::ALL),
            array_map(
                static fn (string $kind, string $group): OfferShape => new OfferShape($kind, $group::wording()),
                array_keys(ConditionReader::GROUPS),
                ConditionReader::GROUPS,
            ),
            array_map(static fn (string $line): OfferShape => new OfferShape($line::kind(), $line::label()), Lines::ALL),
            array_map(static fn (Unit $unit): OfferShape => new OfferShape($unit->value, $unit->word().'s'), Unit::cases()),
            array_map(static fn (string $timing): OfferShape => new OfferShape($timing::kind(), $timing::label()), Timings::ALL),
        );
    }

    /** @param  list<Piece>  $pieces */
    private function describe(RecordType $type, array $pieces = []): TypeShape
    {
        return new TypeShape(
            $type->name, $type->label, $type->plural, $type->prefix, $type->title, $type->owner, $type->columns,
            array_map($this->field(...), array_values($type->fields)),
            array_map(static fn (string $guard): OfferShape => new OfferShape($guard::kind(), $guard::label($type)), RepeatGuards::ALL),
            $type->stage()?->name, array_map(
                static fn (Piece $piece): OfferShape => new OfferShape($piece->name(), $piece->label()),
                $pieces,
            ),
        );
    }

    private function field(Field $field): FieldShape
    {
        return new FieldShape(
            $field->name, $field->label, $field->type->value, $field->required, $field->system,
            array_map(
                static fn (Choice $choice): ChoiceShape => new ChoiceShape($choice->value, $choice->label, $choice->tone),
                $field->choices,
            ),
            $field->target, $field->scale, $field->maxLength, $field->currency, $field->min, $field->max, $field->formula,
        );
    }

    private function operator(Operator $operator): OperatorShape
    {
        $labels = [];
        foreach (FieldType::cases() as $type) {
            if ($operator->fits($type)) {
                $labels[$type->value] = $operator->label($type);
            }
        }

        return new OperatorShape(
            $operator->kind(),
            $operator->operand()->value,
            $operator->ofNothing() !== null,
            $operator instanceof ChangeOperator,
            $labels,
        );
    }
}
