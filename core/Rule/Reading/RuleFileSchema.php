<?php

declare(strict_types=1);

namespace VividLedger\Rule\Reading;

use VividLedger\Condition\ConditionReader;
use VividLedger\Condition\Given\Givens;
use VividLedger\Condition\Operator\Operators;
use VividLedger\Condition\Statements;
use VividLedger\Facts\TotalKind;
use VividLedger\People\PersonExpression;
use VividLedger\People\PersonExpressions;
use VividLedger\Rule\Cases\CaseHeading;
use VividLedger\Rule\Cases\CasePart;
use VividLedger\Rule\Guard\RepeatGuard;
use VividLedger\Rule\Guard\RepeatGuards;
use VividLedger\Rule\Limits;
use VividLedger\Rule\Line\Lines;
use VividLedger\Rule\Recipient\Recipient;
use VividLedger\Rule\Recipient\Recipients;
use VividLedger\Rule\Timing\Timing;
use VividLedger\Rule\Timing\Timings;
use VividLedger\Rule\Trigger\Trigger;
use VividLedger\Rule\Trigger\Triggers;
use VividLedger\Rule\Value\AssignedValue;
use VividLedger\Rule\Value\AssignedValues;
use VividLedger\Shape\Json;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Length;
use VividLedger\SignOff\Approvers;
use VividLedger\SignOff\Deciders;
use VividLedger\SignOff\KeptRoute;
use VividLedger\SignOff\RouteStep;
use VividLedger\Slip\Asking;
use VividLedger\Slip\NextInLine;
use VividLedger\Slip\NextSlot;
use VividLedger\Slip\Questions;

/** The JSON Schema (draft 2020-12) of a rule file, made of what the kinds say of themselves. */
final class RuleFileSchema
{
    /**
     * @param  array<string, mixed>  $proofs  the schema of the proofs that a file can bring along
     * @return array<string, mixed>
     */
    public static function all(array $proofs): array
    {
        return [
            '$schema' => 'https://json-schema.org/draft/2020-12/schema',
            '$id' => 'https://vividledger.example/schema/rule.schema.json',
            'title' => 'A rule of Vivid Ledger',
            'description' => 'People go by their handle, records by their number, fields by a dotted path. A file goes out and comes in '
                .'unchanged.',
            'type' => 'object',
            'required' => ['format', 'name', 'on', 'when', 'fires', 'lines'],
            'additionalProperties' => false,
            'properties' => [
                '$schema' => ['type' => 'string'],
                'format' => ['const' => RuleReader::FORMAT],
                'name' => Json::text(RuleReader::NAME_LENGTH),
                'purpose' => ['description' => 'What the rule is for, in somebody’s own words.']
                    + Json::text(RuleReader::PURPOSE_LENGTH, 0),
                'on' => ['description' => 'The record type the rule is about.'] + Json::NAME,
                'when' => self::kinds(Triggers::all()),
                'onlyIf' => ['description' => 'Left out, or a group without parts: always.'] + Json::ref('condition'),
                'fires' => self::kinds(RepeatGuards::all()),
                'lines' => ['type' => 'array', 'minItems' => 1, 'maxItems' => Lines::MOST, 'items' => Json::ref('line')],
                'until' => ['description' => 'Ends a started rule early.'] + Json::ref('condition'),
                'never' => ['description' => 'What no line may break.'] + Limits::shape()->schema(),
                'proofs' => $proofs,
            ],
            '$defs' => self::definitions(),
        ];
    }

    /** @return array<string, array<string, mixed>> */
    private static function definitions(): array
    {
        return [
            'path' => [
                'description' => 'A field, or fields joined by dots over references: customer.plan',
                'type' => 'string', 'pattern' => '^[a-z][a-z0-9_]*(\.[a-z][a-z0-9_]*){0,3}$',
            ],
            'value' => [
                'description' => 'As the field takes it: a text, number or date as text, a moment in UTC, a choice’s value, a handle, a '
                    .'number.',
                'type' => ['string', 'number', 'boolean'],
            ],
            'given' => [
                'description' => 'A value, or one found when the rule is judged.',
                'type' => ['string', 'number', 'boolean', 'object'],
                'if' => ['type' => 'object'],
                'then' => Json::oneOfKinds(self::shapes(Givens::shapes())),
            ],
            'total' => [
                'type' => 'object', 'required' => ['of', 'relation'], 'additionalProperties' => false, 'properties' => [
                    'of' => ['enum' => array_map(static fn (TotalKind $kind): string => $kind->value, TotalKind::cases())],
                    'relation' => [
                        'type' => 'string',
                        'description' => 'ticket.customer: this record’s tickets; customer>ticket.customer: its customer’s tickets.',
                    ],
                    'field' => Json::NAME, 'where' => Json::ref('condition'),
                ],
            ],
            'condition' => Json::oneOfKinds(self::conditions()),
            'person' => self::kinds(PersonExpressions::all()),
            'assigned' => self::kinds(AssignedValues::all()),
            'recipient' => self::kinds(Recipients::all()),
            'approvers' => self::kinds(Deciders::all()),
            'question' => self::kinds(Questions::all()),
            'next_in_line' => self::kinds(NextSlot::ALL),
            'route_step' => ['anyOf' => [RouteStep::shape()->schema(), KeptRoute::shape()->schema()]],
            'timing' => ['description' => 'When a line is done; left out: at once.'] + self::kinds(Timings::all()),
            'line' => Json::oneOfKinds(self::lines()),
        ];
    }

    /**
     * @param  list<class-string<Asking|NextInLine|Trigger|RepeatGuard|PersonExpression|AssignedValue|Recipient|Approvers|Timing>>  $kinds
     * @return array<string, mixed>
     */
    private static function kinds(array $kinds): array
    {
        return Json::oneOfKinds(self::shapes(array_map(static fn (string $kind): Shape => $kind::shape(), $kinds)));
    }

    /** @return array<string, array<string, mixed>> */
    private static function conditions(): array
    {
        $parts = ['required' => ['of'], 'properties' => ['of' => ['type' => 'array', 'items' => Json::ref('condition')]]];
        $shapes = Statements::shapes();
        foreach (Operators::all() as $operator) {
            $shapes[] = $operator->shape();
        }

        return array_map(static fn (): array => $parts, ConditionReader::GROUPS) + self::shapes($shapes);
    }

    /** @return array<string, array<string, mixed>> lines with what every line can have */
    private static function lines(): array
    {
        $besides = [
            'at' => Json::ref('timing'), 'tooLate' => (new Length)->schema(),
            'key' => ['type' => 'string', 'minLength' => 1, 'maxLength' => 40, 'pattern' => '^[a-z][a-z0-9_]*$'],
            'onlyIf' => Json::ref('condition'), 'off' => ['type' => 'boolean'],
            'lapses' => ['description' => 'What takes the point from the tasks that the line gives.'] + Json::ref('condition'),
        ];

        $schemas = [];
        foreach (Lines::all() as $line) {
            $schema = $line::shape()->schema();
            $own = is_array($schema['properties'] ?? null) ? $schema['properties'] : [];
            // The heading of a case is switched off, and the first of some cases has their time; that is all it can have besides.
            $heading = is_a($line, CaseHeading::class, true) ? $line::part() : null;
            $schemas[$line::kind()] = ['properties' => $own + match ($heading) {
                null => $besides,
                CasePart::First => array_intersect_key($besides, ['at' => true, 'off' => true]),
                default => ['off' => $besides['off']],
            }] + $schema;
        }

        return $schemas;
    }

    /**
     * @param  list<Shape>  $shapes
     * @return array<string, array<string, mixed>> by kind
     */
    private static function shapes(array $shapes): array
    {
        $schemas = [];
        foreach ($shapes as $shape) {
            $schemas[$shape->kind] = $shape->schema();
        }

        return $schemas;
    }
}
