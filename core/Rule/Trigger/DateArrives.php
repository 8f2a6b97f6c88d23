<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Record\EventKind;
use VividLedger\Rule\Reading\Context;
use VividLedger\Rule\Reading\Edit;
use VividLedger\Rule\Reading\Node;
use VividLedger\Rule\Reading\Offer;
use VividLedger\Rule\Reading\WordRole;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Time\Due;
use VividLedger\Time\LocalTime;
use VividLedger\Time\WorkingCalendar;

/** A date of the record arrives, or the moment so long before or after it; once, or every year. A date begins at midnight. */
final readonly class DateArrives extends Swept
{
    private function __construct(string $type, public Field $field, public Due $due, public bool $yearly)
    {
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

    public static function event(): EventKind
    {
        return EventKind::DateArrived;
    }

    public static function read(Context $context, Node $node): ?self
    {
        $type = $context->type;
        $context->word('comes to', WordRole::Value, $node->at, Edit::Trigger);
        $due = Due::read($node);
        $name = $node->child('field');
        $field = $type->field($name->text() ?? '');
        $offers = static fn (): array => array_map(static fn (Field $field): Offer => new Offer($field->label, $field->name), array_values(array_filter($type->fields, static fn (Field $field): bool => $field->type->isMoment())));
        if (is_string($due)) {
            return $context->gap('choose how far from it', $node->at, Edit::Moment, 'wrong_type', $due);
        }
        $far = match (true) {
            $due->amount->amount === 0 => 'the day of',
            $due->amount->amount < 0 => "{$due->length()} before",
            default => "{$due->length()} after",
        };
        $context->word($far, WordRole::Value, $node->at, Edit::Moment);
        if ($field === null || ! $field->type->isMoment()) {
            return $context->gap($name->text() ?? 'choose a date', $name->at, Edit::Offer, 'unknown_field', "Choose a date of the {$type->inSentence()}.", $offers);
        }
        $context->choice($field->label, WordRole::Field, $name->at, $offers);
        if ($due->rest() !== '') {
            $context->word($due->rest(), WordRole::Value, $node->at, Edit::Moment);
        }
        $yearly = $node->child('yearly');
        $each = static fn (): array => [new Offer('every year', true), new Offer('only once', null)];
        if ($yearly->raw === true) {
            $context->choice('every year', WordRole::Value, $yearly->at, $each);
        } else {
            $context->more('+ every year', $yearly->at, Edit::Offer, $each);
        }

        return new self($type->name, $field, $due, $yearly->raw === true);
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
     */
    public function moment(string $value, ?int $year, WorkingCalendar $calendar, \DateTimeZone $zone): \DateTimeImmutable
    {
        $isDay = strlen($value) === 10;
        $local = $isDay ? null : (new \DateTimeImmutable($value))->setTimezone($zone);
        $date = $local?->format('Y-m-d') ?? $value;
        if ($isDay || $year !== null) {
            [$its, $month, $day] = array_map(intval(...), explode('-', $date));
            $its = $year ?? $its;
            // Of 29 February every year has an anniversary.
            $day = $month === 2 && $day === 29 && ! checkdate(2, 29, $its) ? 28 : $day;
            $base = LocalTime::instant($its, $month, $day, $local?->format('H:i:s') ?? '00:00:00', $zone);
        } else {
            $base = new \DateTimeImmutable($value);
        }

        return $this->due->from($base, $zone, $calendar);
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
