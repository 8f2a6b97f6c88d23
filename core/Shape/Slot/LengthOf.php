<?php

declare(strict_types=1);

namespace VividLedger\Shape\Slot;

use VividLedger\Shape\Context;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Scope;
use VividLedger\Shape\TimeForm;
use VividLedger\Shape\TimeReader;
use VividLedger\Shape\Typed;
use VividLedger\Shape\Worded;
use VividLedger\Shape\WordRole;
use VividLedger\Time\Amount;
use VividLedger\Words\Words;

/** A length of time in an object of its own. */
final readonly class LengthOf implements Worded
{
    /**
     * @param  bool  $bare  whether a unit may stand without a number: "once a week"
     * @param  bool  $inDays  whether a week that is not counted is one of seven days
     */
    public function __construct(private bool $bare = false, private bool $inDays = false)
    {
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return is_array($json) && array_diff(
            array_keys($json),
            ['amount', 'unit'],
        ) === [] ? (new Length)->print($json, $scope, $around) : null;
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        return $this->bare ? (new Interval)->lengths($typed, $at, $scope) : (new Length($this->inDays))
            ->parse($typed, $at, $scope, $around);
    }

    public function read(Context $context, Node $node, Filled $around): ?Amount
    {
        $amount = TimeReader::amount($node);
        if ($amount === null || $amount->amount < 1) {
            return $context->gap(
                'choose how long',
                $node->at,
                TimeForm::length(),
                'missing',
                Words::say('Give a whole number and a unit, such as 3 days.'),
            );
        }
        $context->word($amount->unit->label($amount->amount), WordRole::Value, $node->at, TimeForm::length());

        return $amount;
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
    }

    public function schema(): array
    {
        return (new Length)->schema();
    }
}
