<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use Closure;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Row;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Labels;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** Which day of the week it is, or whether work is done on it. */
final readonly class DayIs extends OfTheMoment
{
    private const WORKING = 'working_day';

    /** As each reads; weekdays by their names in ISO 8601 order. */
    private const DAYS = [
        self::WORKING => 'a working day', 'monday' => 'a Monday', 'tuesday' => 'a Tuesday', 'wednesday' => 'a Wednesday',
        'thursday' => 'a Thursday', 'friday' => 'a Friday', 'saturday' => 'a Saturday', 'sunday' => 'a Sunday',
    ];

    public function __construct(private string $day, \DateTimeZone $zone, bool $negated, string $text)
    {
        parent::__construct($zone, $negated, $text);
    }

    public static function shapes(): array
    {
        $day = Labels::of(array_flip(self::DAYS), ['Monday' => 'monday', 'Tuesday' => 'tuesday', 'Wednesday' => 'wednesday',
            'Thursday' => 'thursday', 'Friday' => 'friday', 'Saturday' => 'saturday', 'Sunday' => 'sunday',
            'a business day' => self::WORKING, 'a workday' => self::WORKING]);

        return [
            Shape::of('day_is')->says('today is {day}')->orSaid('(it is|the day is|it happens on|on) {day}')->slot('day', $day),
            Shape::of('day_is_not')->says('today is not {day}')->orSaid('(today isn’t|it is not|the day is not|not on) {day}')
                ->orSaidWith(['day' => self::WORKING], '(it is|on) (a day off|a non-working day)')->slot('day', $day),
        ];
    }

    public static function offers(Context $context, Node $node): array
    {
        return [new Offer('the day: a working day, a Monday…', ['kind' => 'day_is', 'day' => self::WORKING], 'The moment')];
    }

    public static function read(Context $context, Node $node, Row $row): ?self
    {
        $negated = $node->kind() === 'day_is_not';
        $context->word('today', WordRole::Field, $node->child('field')->at, Subjects::chooser($context, $node));
        $kinds = static fn (): array => [new Offer('is', 'day_is'), new Offer('is not', 'day_is_not')];
        $context->choice($negated ? 'is not' : 'is', WordRole::Glue, $node->child('kind')->at, $kinds);
        $at = $node->child('day');
        $offers = static fn (): array => array_map(
            static fn (string $day, string $label): Offer => new Offer($label, $day),
            array_keys(self::DAYS),
            self::DAYS,
        );
        $day = $at->text() ?? '';
        if (! isset(self::DAYS[$day])) {
            $editor = Editor::choose('Which day', $offers);

            return $context->gap('choose a day', $at->at, $editor, 'missing', Words::say('Choose which day it is.'));
        }
        $context->choice(self::DAYS[$day], WordRole::Value, $at->at, $offers, 'Which day');

        return new self($day, $context->zone, $negated, $row->text());
    }

    protected function isAt(\DateTimeImmutable $at, Closure $calendar): bool
    {
        return $this->day === self::WORKING
            ? $calendar()->isWorkingDay($at, $this->zone)
            : strtolower($at->setTimezone($this->zone)->format('l')) === $this->day;
    }
}
