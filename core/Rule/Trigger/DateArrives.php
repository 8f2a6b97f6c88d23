<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Facts\Facts;
use VividLedger\Record\Change;
use VividLedger\Record\EventKind;
use VividLedger\Record\Record;
use VividLedger\Schema\Field;
use VividLedger\Shape\Context;
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
use VividLedger\Shape\Slot\TimeOfDay;
use VividLedger\Time\Due;
use VividLedger\Time\WorkingCalendar;

/** A date of the record arrives, or the moment so long before or after it; once, or every year. A date begins at midnight. */
final readonly class DateArrives extends Swept implements WaitsForDate
{
    /** @param  string  $owner  name of the field that holds the owner of a record */
    private function __construct(
        string $type,
        private ArrivingDate $date,
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

        $shape = Shape::of(self::kind())->opens(Triggers::chooser(...))->apart('subject', 'byHand')
            ->starts(self::begins(...));

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
        )->orSaid("at {time}[,] {far} {field}{$more}",
            "at {time}[,] {away} (from|off) {field}{$more}")->slot('subject',
                new Subject)->slot('byHand',
                    new Always)->slot('far',
                        new Far('the day of'))->slot('over',
                            new Overdue)
            ->slot('away', new SignedLength(-1))->slot('past', new SignedLength(1))
            ->slot('field', new DateField)->slot('rest', new DueRest)->slot('time', new TimeOfDay)
            ->slot('yearly', new Also('every year', 'only once'))
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
            new ArrivingDate($read->the('field', Field::class), $read->the('far', Due::class), $read->flag('yearly')),
            $read->flag('onDayOnly'),
            $context->type->owner,
            $context->zone,
        );
    }

    /** Whether it also takes a record that is nearer to its date already when it is made or the date is moved. */
    public function takesNearer(): bool
    {
        return $this->date->due->amount->amount < 0 && ! $this->onDayOnly;
    }

    public function watch(): Watch
    {
        return new Watch(
            $this->type,
            created: $this->takesNearer(),
            fields: $this->takesNearer() ? [$this->date->field->name] : [],
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
        $moved = $change->event === null && ($change->before === null || in_array($this->date->field->name, $change->fields(), true));

        return $moved && $this->takesNearer() ? $this->near($change->after, $facts, $change->at) : null;
    }

    /** The occasion whose moment has passed while the date itself is still ahead; null when there is none. */
    public function near(Record $record, Facts $facts, \DateTimeImmutable $at): ?string
    {
        $value = $record->value($this->date->field->name);

        return is_string($value) ? $this->date->nearBy($value, $this->clockOf($record, $facts), $at) : null;
    }

    /** The occasion of the next date that is still ahead. */
    private function coming(Record $record, Facts $facts, \DateTimeImmutable $at): ?string
    {
        $value = $record->value($this->date->field->name);

        return is_string($value) ? ($this->date->ahead($value, $this->clockOf($record, $facts), $at)[0][1] ?? null) : null;
    }

    /** @return array{WorkingCalendar, \DateTimeZone} by which the moment of a record is reckoned */
    private function clockOf(Record $record, Facts $facts): array
    {
        if (! $this->date->due->ownersClock) {
            return [$facts->calendar(null), $this->zone];
        }
        $owner = $record->value($this->owner);
        $calendar = $facts->calendar(is_int($owner) ? $facts->person($owner) : null);

        return [$calendar, $calendar->zone];
    }

    public function wanted(): string
    {
        $due = $this->date->due;
        $far = $due->amount->amount === 0 ? '' : $due->length().($due->amount->amount < 0 ? ' before ' : ' after ');

        return "comes to {$far}{$this->date->field->label}";
    }

    public function arriving(): ArrivingDate
    {
        return $this->date;
    }

    public function moments(Ahead $ahead): array
    {
        $value = $ahead->record->value($this->date->field->name);

        return is_string($value)
            ? $this->date->moments($value, $this->clockOf($ahead->record, $ahead->facts), $ahead->from, $ahead->until) : [];
    }

    public function missed(Ahead $ahead): ?string
    {
        $moments = array_column($this->moments($ahead), 0);
        foreach ($moments as $moment) {
            if (abs($moment->getTimestamp() - $ahead->from->getTimestamp()) < 60) {
                return null;
            }
        }

        return $moments === [] ? "{$this->date->field->label} is empty, so that never comes"
            : 'that is on '.$moments[0]->setTimezone($ahead->zone)->format('j M Y, H:i');
    }

    public function opening(Proposal $proposal): Opening
    {
        $field = $this->date->field;
        $set = $proposal->set;
        $record = $proposal->record->with($set);
        if ($record->value($field->name) === null && $field->isSettable()) {
            // A record without the date is supposed to have one that is about to come.
            $calendar = $proposal->facts->calendar(null);
            $days = $this->date->daysBetween($proposal->now, $proposal->now->modify('+1 month'), $calendar, $proposal->zone);
            $day = $days[0] ?? $proposal->now->setTimezone($proposal->zone)->format('Y-m-d');
            $set[$field->name] = $this->date->isDay() ? $day : "{$day}T09:00:00Z";
            $record = $record->with([$field->name => $set[$field->name]]);
        }
        $ahead = new Ahead(
            type: $proposal->type, record: $record, facts: $proposal->facts, zone: $proposal->zone, from: $proposal->now,
            until: $proposal->until,
        );
        $moments = array_column($this->moments($ahead), 0);
        $coming = array_filter($moments, static fn (\DateTimeImmutable $at): bool => $at >= $proposal->now);

        return new Opening(
            OpeningKind::Time,
            $coming !== [] ? min($coming) : ($moments === [] ? $proposal->now : max($moments)),
            set: $set,
        );
    }

    /** @return array<string, mixed> */
    private static function begins(Context $context): array
    {
        $dates = array_filter($context->type->ownFields(), static fn (Field $field): bool => $field->type->isMoment());

        return ($dates === [] ? [] : ['field' => reset($dates)->name]) + ['amount' => 0, 'unit' => 'day', 'time' => '09:00'];
    }
}
