<?php

declare(strict_types=1);

namespace VividLedger\Rule\Timing;

use VividLedger\Schema\Field;
use VividLedger\Shape\Context;
use VividLedger\Shape\FieldOffers;
use VividLedger\Shape\FormField;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\DateField;
use VividLedger\Shape\Slot\DueRest;
use VividLedger\Shape\Slot\Far;
use VividLedger\Shape\Slot\ItsType;
use VividLedger\Shape\Slot\Overdue;
use VividLedger\Shape\Slot\SignedLength;
use VividLedger\Shape\TimeReader;
use VividLedger\Shape\Way;
use VividLedger\Time\Due;
use VividLedger\Time\LocalTime;
use VividLedger\Words\Words;

/** At a date of the record, or so long before or after it. When the date moves, so does the line. */
final readonly class AtDate implements Timing
{
    use Plain;

    private function __construct(private Field $field, private Due $due)
    {
    }

    public static function kind(): string
    {
        return 'date';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('{far} {field} {rest}')
            ->orSaid(
                '(when it is |once it is |when {} is |) {after} {over} {rest}',
                '{far} the day (of|it is|) {field} {rest}', '{far} {field} is reached {rest}',
                'when {field} (comes|arrives|is reached) {rest}', 'when {field} is {away} (away|ahead|off) {rest}',
                'with {away} to go until {field} {rest}')
            ->orSaidWith(
                ['amount' => 0, 'unit' => 'day'],
                '(at|by|when it is) {field} {rest}', '[on ]the day it is {field} {rest}',
                'when {field} (comes|arrives|is reached) {rest}',
            )
            ->slot('far', new Far('on'))->slot('field', new DateField)->slot('after', new SignedLength(1))
            ->slot('away', new SignedLength(-1))->slot('over', new Overdue)->slot('', new ItsType)->slot('rest', new DueRest);
    }

    public static function label(): string
    {
        return 'before or after a date';
    }

    public static function ways(Context $context, int $place): array
    {
        $dates = FieldOffers::own($context, static fn (Field $field): bool => $field->type->isMoment());

        return [new Way(self::label(), ['kind' => self::kind()], [
            FormField::time(['amount' => 3, 'unit' => 'day'], sides: ['after', 'before'], hasTime: true, hasClock: true),
            FormField::choice('field', 'counted from', $dates, $dates[0]->value ?? null),
        ])];
    }

    public static function read(Context $context, Node $node): ?self
    {
        $due = TimeReader::due($node);
        if (is_string($due)) {
            return $context->problem($node->at, 'wrong_type', $due);
        }
        $name = $node->child('field')->text() ?? '';
        $field = $context->type->field($name);

        return $field === null || ! $field->type->isMoment()
            ? $context->problem(
                $node->at,
                'unknown_field',
                $name === ''
                    ? Words::say('Choose the date to count from.')
                    : Words::say('{type} has no date ‘{name}’ to count from.', type: $context->type->label, name: $name),
            )
            : new self($field, $due);
    }

    /** @return array{} */
    public static function parted(): array
    {
        return [];
    }

    public function margin(): string
    {
        return match (true) {
            $this->due->amount->amount === 0 => "on {$this->field->label}",
            $this->due->amount->amount < 0 => "{$this->due->length()} before",
            default => "{$this->due->length()} after",
        };
    }

    public function said(): string
    {
        $base = match (true) {
            $this->due->amount->amount === 0 => "on {$this->field->label}",
            $this->due->amount->amount < 0 => "{$this->due->length()} before {$this->field->label}",
            default => "{$this->due->length()} after {$this->field->label}",
        };

        return trim("{$base} {$this->due->rest()}");
    }

    public function note(): string
    {
        return $this->said();
    }

    public function due(Occasion $occasion): ?\DateTimeImmutable
    {
        $value = $occasion->record->value($this->field->name);

        return is_string($value) ? $occasion->reckon($this->due, LocalTime::start($value, $occasion->zone)) : null;
    }

    public function hangsOn(): string
    {
        return $this->field->name;
    }
}
