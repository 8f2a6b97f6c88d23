<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Schema\Field;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\InKeys;
use VividLedger\Shape\MultiKeySlot;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot\Length;
use VividLedger\Shape\Typed;
use VividLedger\Shape\Worded;
use VividLedger\Shape\WordRole;
use VividLedger\Time\Unit;
use VividLedger\Words\Words;

/** So many days ahead, or working days: {"days", "workingDays"}. */
final readonly class DaysAhead implements MultiKeySlot, Worded
{
    use InKeys;

    public function keys(): array
    {
        return ['days', 'workingDays'];
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        $json = is_array($json) ? $json : [];
        $working = $json['workingDays'] ?? null;

        return is_int($json['days'] ?? null) && $json['days'] >= 0 && ($working === null || $working === true)
            ? ($working === true ? Unit::WorkingDay : Unit::Day)->label($json['days']) : null;
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $found = [];
        foreach ((new Length)->parse($typed, $at, $scope, $around) as $length) {
            $json = is_array($length->json) ? $length->json : [];
            if (in_array($json['unit'] ?? null, [Unit::Day->value, Unit::WorkingDay->value], true)) {
                $found[] = $length->as(
                    ['days' => $json['amount'] ?? 0] + ($json['unit'] === Unit::WorkingDay->value ? ['workingDays' => true] : []),
                );
            }
        }
        if ($found === []) {
            $typed->expect('days or working days', $at, 2);
        }

        return $found;
    }

    /** @return ?array{int, bool} the number, and whether working days are counted */
    public function read(Context $context, Node $node, Filled $around): ?array
    {
        $working = $node->child('workingDays');
        $isWorking = $working->raw === true;
        if ($around->any('by', Field::class) === null) {
            return [0, $isWorking];
        }
        $most = SendList::MOST_DAYS;
        $days = $node->child('days');
        $number = Editor::number('Days ahead', 0, $most);
        if (! is_int($days->raw) || $days->raw < 0 || $days->raw > $most) {
            return $context->gap('how many days ahead', $days->at, $number, 'out_of_range', Words::say(
                'Look from 0 to {most} days ahead.',
                most: $most,
            ));
        }
        $context->glue(': late, today, and the next');
        $context->word((string) $days->raw, WordRole::Value, $days->at, $number);
        $context->choice($isWorking ? 'working days' : 'days', WordRole::Value, $working->at, static fn (): array => [
            new Offer('working days', true), new Offer('days', null),
        ], 'Days');

        return [$days->raw, $isWorking];
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
    }

    public function properties(): array
    {
        return ['days' => ['type' => 'integer', 'minimum' => 0, 'maximum' => SendList::MOST_DAYS], 'workingDays' => ['type' => 'boolean']];
    }

    public function required(): array
    {
        return [];
    }
}
