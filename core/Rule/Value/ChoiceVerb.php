<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use VividLedger\Schema\FieldType;
use VividLedger\Shape\MultiKeySlot;
use VividLedger\Shape\OnlyHeard;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Typed;

/** A choice by the deed that leads to it, {"field", "value"}: to close a ticket is to set its status to Closed. */
final readonly class ChoiceVerb implements MultiKeySlot
{
    use OnlyHeard;

    private const IRREGULAR = ['won' => 'win', 'lost' => 'lose', 'done' => 'finish', 'withdrawn' => 'withdraw', 'begun' => 'begin'];

    /** @param  string  $ending  of the verb: what somebody does */
    public function __construct(private string $ending = '')
    {
    }

    public function keys(): array
    {
        return ['field', 'value'];
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $found = [];
        foreach ($scope->type->ownFields() as $field) {
            foreach ($field->type === FieldType::Choice && $field->isSettable() ? $field->choices : [] as $choice) {
                foreach (self::verbs(mb_strtolower($choice->label)) as $verb) {
                    $end = $typed->words($at, $verb.$this->ending, 3);
                    if ($end !== null) {
                        $found[] = new Parsed(['field' => $field->name, 'value' => $choice->value], $end, 1);
                    }
                }
            }
        }

        return Parsed::distinct($found);
    }

    /** @return list<string> what one does so that a record is as a word says: "cancelled" is what one can cancel */
    private static function verbs(string $done): array
    {
        if (isset(self::IRREGULAR[$done])) {
            return [self::IRREGULAR[$done]];
        }
        if (preg_match('/^\p{L}+ed$/u', $done) !== 1) {
            return [];
        }
        $stem = substr($done, 0, -2);

        return [$stem, "{$stem}e", ...(preg_match('/(\p{L})\1$/u', $stem) === 1 ? [substr($stem, 0, -1)] : [])];
    }
}
