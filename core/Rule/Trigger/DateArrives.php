<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Facts\Facts;
use VividLedger\Record\Change;
use VividLedger\Record\EventKind;
use VividLedger\Record\Record;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Edit;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Also;
use VividLedger\Shape\Slot\Always;
use VividLedger\Shape\Slot\DateField;
use VividLedger\Shape\Slot\DueRest;
use VividLedger\Shape\Slot\Far;
use VividLedger\Shape\Slot\Overdue;
use VividLedger\Shape\Slot\SignedLength;
use VividLedger\Time\Due;
use VividLedger\Time\LocalTime;
use VividLedger\Time\OutOfTime;
use VividLedger\Time\WorkingCalendar;

/** A date of the record arrives, or the moment so long before or after it; once, or every year. A date begins at midnight. */
final readonly class DateArrives extends Swept
{
    /** @param  string  $owner  name of the field that holds the owner of a record */
    private function __construct(
        string $type,
        public Field $field,
        public Due $due,
        public bool $yearly,
        private bool $onDayOnly,
        private string $owner,
        private \DateTimeZone $zone,
    ) {
        parent::__construct($type);
    }

    public static function kind(): string
    {
        return 'date';
    }

    public static function label(): string
    {
        return 'comes to a date';
    }

    public static function shape(): Shape
    {
        $more = '[, {yearly}][, {onDayOnly}][, or by hand{byHand}]';

        $shape = Shape::of(self::kind())->opens(Edit::Trigger)->apart('subject', 'byHand');

        return $shape->says("{subject} comes to {far} {field} {rest}{$more}")->orSaid(
            "{subject} is {past} {over} {rest}{$more}",
            "{subject} is {away} (from|away from|off) {field} {rest}{$more}",
            "[{subject} (is|comes to|reaches) ]{far} {field} {rest}{$more}",
            "{field} (is|lies) {away} (away|ahead|off|from now|in the future) {rest}{$more}",
            "{field} (is|lies) {past} (ago|past|over|gone|behind) {rest}{$more}", "{field} is in {away} {rest}{$more}",
            "(there are|there is|with) {away} (left|to go|remaining) (until|to|before|till) {field} {rest}{$more}",
            "{away} (remain|are left|is left) (until|to|before) {field} {rest}{$more}",
            "{subject} (is|has been) {past} (past|over|after) {field} {rest}{$more}", "{subject} {far} {field} {rest}{$more}",
        )->orSaidWith(
            ['amount' => 0, 'unit' => 'day'],
            "(on|when|at) [the day (of|when|) ]{field}[ (comes|arrives|is reached|is here|is today|has come|is there)] {rest}{$more}",
            "{field} (comes|arrives|is reached|is today|has come) {rest}{$more}",
            "the day {field} {rest}{$more}",
        )->slot('subject', new Subject)->slot('byHand', new Always)->slot('far', new Far('the day of'))->slot('over', new Overdue)
            ->slot('away', new SignedLength(-1))->slot('past', new SignedLength(1))
            ->slot('field', new DateField)->slot('rest', new DueRest)->slot('yearly', new Also('every year', 'only once'))
            ->slot('onDayOnly', new Also(
                'on that day only',
                'also when it is nearer already',
                static fn (Filled $read): bool => ($read->any('far', Due::class)->amount->amount ?? 0) < 0,
            ));
    }

    public static function event(): EventKind
    {
        return EventKind::DateArrived;
    }

    public static function read(Context $context, Node $node): ?self
    {
        $read = self::shape()->read($context, $node);

        return $read === null ? null : new self(
            $context->type->name,
            $read->the('field', Field::class),
            $read->the('far', Due::class),
            $read->flag('yearly'),
            $read->flag('onDayOnly'),
            $context->type->owner,
            $context->zone,
        );
    }

    /** Whether it also takes a record that is nearer to its date already when it is made or the date is moved. */
    public function takesNearer(): bool
    {
        return $this->due->amount->amount < 0 && ! $this->onDayOnly;
    }

    public function watch(): Watch
    {
        return new Watch(
            $this->type,
            created: $this->takesNearer(),
            fields: $this->takesNearer() ? [$this->field->name] : [],
            events: [self::event()],
        );
    }

    public function accepts(Change $change, Facts $facts): bool
    {
        return parent::accepts($change, $facts) || ($change->event === null && $this->occasionOf($change, $facts) !== null);
    }

    /** The date itself, of a record that is near to it already; fired by hand, what is to come is fired. */
    public function occasionOf(Change $change, Facts $facts): ?string
    {
        if ($change->after === null) {
            return null;
        }
        if ($change->event?->kind === EventKind::ByHand) {
            return $this->coming($change->after, $facts, $change->at);
        }
        $moved = $change->event === null && ($change->before === null || in_array($this->field->name, $change->fields(), true));

        return $moved && $this->takesNearer() ? $this->near($change->after, $facts, $change->at) : null;
    }

    /** The occasion whose moment has passed while the date itself is still ahead; null when there is none. */
    public function near(Record $record, Facts $facts, \DateTimeImmutable $at): ?string
    {
        $value = $record->value($this->field->name);

        return is_string($value) ? $this->nearBy($value, $this->clockOf($record, $facts), $at) : null;
    }

    /**
     * The same of a value of the date.
     *
     * @param  array{WorkingCalendar, \DateTimeZone}  $clock
     */
    public function nearBy(string $value, array $clock, \DateTimeImmutable $at): ?string
    {
        foreach ($this->ahead($value, $clock, $at) as [$moment, $occasion]) {
            if ($moment <= $at) {
                return $occasion;
            }
        }

        return null;
    }

    /** The occasion of the next date that is still ahead. */
    private function coming(Record $record, Facts $facts, \DateTimeImmutable $at): ?string
    {
        $value = $record->value($this->field->name);

        return is_string($value) ? ($this->ahead($value, $this->clockOf($record, $facts), $at)[0][1] ?? null) : null;
    }

    /**
     * @param  array{WorkingCalendar, \DateTimeZone}  $clock
     * @return list<array{\DateTimeImmutable, string}> moment and occasion of the dates that are still to come; of anniversaries, the next
     *     two
     */
    private function ahead(string $value, array $clock, \DateTimeImmutable $at): array
    {
        [$calendar, $zone] = $clock;
        $now = (int) $at->format('Y');
        $years = $this->yearly ? array_filter([$now, $now + 1], static fn (int $year): bool => $year > (int) substr($value, 0, 4)) : [null];
        $ahead = [];
        foreach ($years as $year) {
            try {
                if ($this->base($value, $year, $zone) > $at) {
                    $ahead[] = [$this->moment($value, $year, $calendar, $zone), $this->occasion($value, $year)];
                }
            } catch (OutOfTime) {
                // Such a date never comes.
            }
        }

        return $ahead;
    }

    /** @return array{WorkingCalendar, \DateTimeZone} by which the moment of a record is reckoned */
    private function clockOf(Record $record, Facts $facts): array
    {
        if (! $this->due->ownersClock) {
            return [$facts->calendar(null), $this->zone];
        }
        $owner = $record->value($this->owner);
        $calendar = $facts->calendar(is_int($owner) ? $facts->person($owner) : null);

        return [$calendar, $calendar->zone];
    }

    public function wanted(): string
    {
        $far = $this->due->amount->amount === 0 ? '' : $this->due->length().($this->due->amount->amount < 0 ? ' before ' : ' after ');

        return "comes to {$far}{$this->field->label}";
    }

    /**
     * The moment at which a value of the field sets the rule off.
     *
     * @param  string  $value  "2026-11-24", or an instant
     * @param  ?int  $year  of the anniversary; null for the date itself
     *
     * @throws OutOfTime
     */
    public function moment(string $value, ?int $year, WorkingCalendar $calendar, \DateTimeZone $zone): \DateTimeImmutable
    {
        return $this->due->from($this->base($value, $year, $zone), $zone, $calendar);
    }

    /** The instant at which the date itself, or its anniversary, begins. */
    private function base(string $value, ?int $year, \DateTimeZone $zone): \DateTimeImmutable
    {
        $isDay = strlen($value) === 10;
        $local = $isDay ? null : (new \DateTimeImmutable($value))->setTimezone($zone);
        $date = $local?->format('Y-m-d') ?? $value;
        if ($isDay || $year !== null) {
            [$its, $month, $day] = array_map(intval(...), explode('-', $date));
            $its = $year ?? $its;
            // Of 29 February every year has an anniversary.
            $day = $month === 2 && $day === 29 && ! checkdate(2, 29, $its) ? 28 : $day;

            return LocalTime::instant($its, $month, $day, $local?->format('H:i:s') ?? '00:00:00', $zone);
        }

        return new \DateTimeImmutable($value);
    }

    /**
     * The days of the field whose moment lies behind one instant and not behind another.
     *
     * @return list<string> "2026-11-24"; for every year, the anniversaries
     */
    public function daysBetween(\DateTimeImmutable $after, \DateTimeImmutable $until, WorkingCalendar $calendar, \DateTimeZone $zone): array
    {
        [$first, $last] = $this->due->bases($after, $until, $zone, $calendar);
        $day = $first->setTimezone($zone)->modify('-1 day');
        $last = $last->setTimezone($zone)->modify('+1 day')->format('Y-m-d');
        $days = [];
        for ($name = $day->format('Y-m-d'); $name <= $last; $name = $day->format('Y-m-d')) {
            $moment = $this->moment($name, null, $calendar, $zone);
            if ($moment > $after && $moment <= $until) {
                $days[] = $name;
            }
            $day = $day->modify('+1 day');
        }

        return $days;
    }

    /** Whether a text names an occurrence of this date, and not another way in which the rule starts. */
    public function isOccasion(string $occasion): bool
    {
        return str_starts_with($occasion, "date:{$this->field->name}:");
    }

    /** Whether an occasion is still that of the record's date, which has not moved since. */
    public function isOf(Record $record, string $occasion): bool
    {
        $value = $record->value($this->field->name);

        return is_string($value)
            && ($occasion === $this->occasion($value, null) || str_starts_with($occasion, $this->occasion($value, null).':'));
    }

    /** Names the occurrence among all of the record: it can set the rule off once. */
    public function occasion(string $value, ?int $year): string
    {
        return "date:{$this->field->name}:{$value}".($year === null ? '' : ":{$year}");
    }

    public function isDay(): bool
    {
        return $this->field->type === FieldType::Date;
    }
}
