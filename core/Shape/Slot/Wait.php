<?php

declare(strict_types=1);

namespace VividLedger\Shape\Slot;

use VividLedger\Shape\Context;
use VividLedger\Shape\Filled;
use VividLedger\Shape\InKeys;
use VividLedger\Shape\MultiKeySlot;
use VividLedger\Shape\Node;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\TimeForm;
use VividLedger\Shape\TimeReader;
use VividLedger\Shape\Typed;
use VividLedger\Shape\Worded;
use VividLedger\Shape\WordRole;
use VividLedger\Time\Due;
use VividLedger\Words\Words;

/** A length of time with what stands behind it: "2 working days at 09:00". */
final readonly class Wait implements MultiKeySlot, Worded
{
    use InKeys;

    public function keys(): array
    {
        return ['amount', 'unit', 'time', 'roll', 'clock'];
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        $length = (new Length)->print($json, $scope, $around);

        return $length === null ? null : trim("{$length} ".(new DueRest)->print($json, $scope, $around));
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $found = [];
        foreach ((new Length)->parse($typed, $at, $scope, $around) as $length) {
            foreach ((new DueRest)->parse($typed, $length->end, $scope, $around) as $rest) {
                $both = (is_array($length->json) ? $length->json : []) + (is_array($rest->json) ? $rest->json : []);
                $found[] = new Parsed($both, $rest->end, $length->cost + $rest->cost);
            }
        }

        return $found;
    }

    public function read(Context $context, Node $node, Filled $around): ?Due
    {
        $due = TimeReader::due($node);
        if (is_string($due) || $due->amount->amount < 1) {
            return $context->gap(
                'choose how long',
                $node->at,
                TimeForm::length(),
                'wrong_type',
                is_string($due) ? $due : Words::say('Give an amount of 1 or more.'),
            );
        }
        $context->word(trim("{$due->length()} {$due->rest()}"), WordRole::Value, $node->at, TimeForm::length());

        return $due;
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
    }

    public function properties(): array
    {
        return (new Length)->properties() + (new DueRest)->properties();
    }

    public function required(): array
    {
        return ['amount', 'unit'];
    }
}
