<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\InKeys;
use VividLedger\Shape\MultiKeySlot;
use VividLedger\Shape\Node;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Typed;
use VividLedger\Shape\Worded;
use VividLedger\Shape\WordRole;
use VividLedger\Time\InvalidTimetable;
use VividLedger\Time\Timetable;

/** The rounds of a timetable as one word of the page: its recurrence, time of day, first day and whether it keeps to working days. */
final readonly class TimetableShown implements MultiKeySlot, Worded
{
    use InKeys;

    public function keys(): array
    {
        return ['rrule', 'time', 'from', 'workingDays'];
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return null;
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        return [];
    }

    public function read(Context $context, Node $node, Filled $around): ?Timetable
    {
        try {
            $timetable = Timetable::of(
                $node->child('rrule')->text() ?? '',
                $node->child('time')->text() ?? '',
                $node->child('from')->text() ?? '',
                $node->child('workingDays')->raw === true,
            );
        } catch (InvalidTimetable $invalid) {
            $code = $node->child('from')->isMissing() ? 'missing' : 'wrong_timetable';

            return $context->gap('choose when', $node->at, Editor::timetable(), $code, $invalid->getMessage());
        }
        $context->word($timetable->said(), WordRole::Value, $node->at, Editor::timetable());

        return $timetable;
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
    }

    public function properties(): array
    {
        return [];
    }

    public function required(): array
    {
        return [];
    }
}
