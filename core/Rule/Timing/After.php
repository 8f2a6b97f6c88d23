<?php

declare(strict_types=1);

namespace VividLedger\Rule\Timing;

use VividLedger\Shape\Context;
use VividLedger\Shape\FormField;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\DueRest;
use VividLedger\Shape\Slot\Length;
use VividLedger\Shape\Slot\TimeOfDay;
use VividLedger\Shape\Slot\Wait;
use VividLedger\Shape\TimeReader;
use VividLedger\Shape\Way;
use VividLedger\Time\Due;
use VividLedger\Words\Words;

/** So long after the rule fired. */
final readonly class After implements Timing
{
    use Plain;

    private function __construct(private Due $due)
    {
    }

    public static function kind(): string
    {
        return 'after';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('after {due}')
            ->says('the same day {rest}', ['amount' => 0, 'unit' => 'day'])
            ->orSaid(
                'at {time} (after|in) {length}',
                'in {due}', '{length} (later|afterwards|after that|from now|after it fires|on) {rest}',
                'in {length}(’ time|’s time) {rest}',
                '(when|once) {length} (have|has) (passed|gone by) {rest}', '(wait|waiting) {length}[,] {rest}[then]',
                'after {length} (have|has) passed {rest}',
                'after waiting {due}',
                'after another {due}',
                'after a (delay|wait|pause) of {due}',
                '(let|allow) {length} (pass|go by)[,] {rest}[then]',
            )
            ->orSaidWith(
                ['amount' => 1, 'unit' => 'day'],
                'tomorrow {rest}', 'the (next|following) day {rest}', 'the day after {rest}', 'a day later {rest}',
                'on the next day {rest}',
            )
            ->orSaidWith(['amount' => 1, 'unit' => 'working_day'], '(on |)the next (working|business|work) day {rest}')
            ->orSaidWith(['amount' => 1, 'unit' => 'week'], 'next week {rest}')
            ->orSaidWith(['amount' => 0, 'unit' => 'day'], '(later |)(today|that day|on the same day) {rest}')
            ->slot('due', new Wait)->slot('length', new Length)->slot('time', new TimeOfDay)->slot('rest', new DueRest);
    }

    public static function label(): string
    {
        return 'after a while';
    }

    public static function ways(Context $context, int $place): array
    {
        return [new Way(self::label(), ['kind' => self::kind()], [
            FormField::time(['amount' => 3, 'unit' => 'day'], least: 1, hasTime: true, hasClock: true),
        ])];
    }

    public static function read(Context $context, Node $node): ?self
    {
        $due = TimeReader::due($node);
        if (is_string($due)) {
            return $context->problem($node->at, 'wrong_type', $due);
        }

        return $due->amount->amount < 0 || ($due->amount->amount === 0 && $due->time === null && $due->roll === null)
            ? $context->problem(
                $node->at,
                'out_of_range',
                Words::say('A line comes after the rule fires. Give an amount of 1 or more, or let it be done at once.'),
            )
            : new self($due);
    }

    /** @return array{} */
    public static function parted(): array
    {
        return [];
    }

    public function margin(): string
    {
        return $this->due->amount->amount === 0 ? (string) $this->due->time : "+{$this->due->length()}";
    }

    public function said(): string
    {
        return trim(($this->due->amount->amount === 0 ? 'the same day' : "after {$this->due->length()}").' '.$this->due->rest());
    }

    public function note(): string
    {
        return $this->due->rest();
    }

    /** Roughly, for showing one line beside another. */
    public function seconds(): int
    {
        return $this->due->amount->seconds();
    }

    public function due(Occasion $occasion): \DateTimeImmutable
    {
        $due = $occasion->reckon($this->due, $occasion->started);

        // "The same day at 09:00" of a rule that fires in the afternoon is the next morning.
        return $due < $occasion->started ? $occasion->reckon(
            new Due(
                new \VividLedger\Time\Amount(1, \VividLedger\Time\Unit::Day),
                $this->due->roll,
                $this->due->time,
                $this->due->ownersClock,
            ),
            $occasion->started,
        ) : $due;
    }
}
