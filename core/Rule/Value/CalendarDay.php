<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use VividLedger\Record\InvalidValue;
use VividLedger\Record\Record;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Schema\Field;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Shape;
use VividLedger\Time\OutOfTime;
use VividLedger\Time\WorkingCalendar;

/** A day that the calendar knows by another: the end of its month, the next working day, the first Monday of the month after. */
final readonly class CalendarDay implements AssignedValue
{
    private function __construct(private string $day, private DateBase $from)
    {
    }

    public static function kind(): string
    {
        return 'calendar_day';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('{day}, counted from {from}')
            ->orSaid('{day} (after|from|of|following|counting from) {from}')->orSaidWith(['from' => 'now'], '{day}')
            ->slot('day', new DaySlot)->slot('from', new ShiftBase);
    }

    public static function deeds(): Shape
    {
        return Shape::of(self::kind())->orSaidWith(
            ['from' => 'itself'],
            '(move|push|put|shift|roll|round) {field} [up |on |back |out ]to {day}',
        )->slot('field', new SettableField(self::class))->slot('day', new DaySlot);
    }

    public static function fits(Field $field): bool
    {
        return $field->type->isMoment();
    }

    public static function offers(Context $context, Field $field, bool $isNew): array
    {
        return [new Offer('a day of the calendar…', ['kind' => self::kind(), 'day' => 'working_day', 'from' => 'now'], 'Or')];
    }

    public static function read(Context $context, Node $node, Field $field, Editor $editor): ?self
    {
        $read = self::shape()->opens(static fn (): Editor => $editor)->read($context, $node);

        return $read === null ? null : new self($read->text('day'), $read->the('from', DateBase::class));
    }

    public function for(Field $field, ActionContext $performance, ?Record $target): string
    {
        $base = $this->from->moment($field, $performance, $target)->setTimezone($performance->zone);
        try {
            $moved = OutOfTime::check($this->day($base, $performance->facts->calendar(null), $performance->zone));
        } catch (OutOfTime $never) {
            throw new InvalidValue('out_of_range', "{$field->label}: {$never->getMessage()}.");
        }

        return DateBase::value($field, $moved, $performance->zone);
    }

    /** The time of day stays what it is on the clock. */
    private function day(\DateTimeImmutable $base, WorkingCalendar $calendar, \DateTimeZone $zone): \DateTimeImmutable
    {
        [$year, $month] = [(int) $base->format('Y'), (int) $base->format('n')];
        $first = $base->modify('first day of next month');

        return match ($this->day) {
            'working_day' => $calendar->addDays($base, 1, $zone),
            'month_end' => $base->modify('last day of this month'),
            'month_end_working' => $calendar->roll($base->modify('last day of this month'), false, $zone),
            'next_month' => $first,
            'next_month_working' => $calendar->roll($first, true, $zone),
            'next_month_monday' => $base->modify('first monday of next month')->setTime(...self::clock($base)),
            'quarter_end' => $base->setDate($year, 3 * intdiv($month + 2, 3), 1)->modify('last day of this month'),
            'year_end' => $base->setDate($year, 12, 31),
            default => $base->modify("next {$this->day}")->setTime(...self::clock($base)),
        };
    }

    /** @return array{int, int, int} */
    private static function clock(\DateTimeImmutable $at): array
    {
        return [(int) $at->format('G'), (int) $at->format('i'), (int) $at->format('s')];
    }
}
