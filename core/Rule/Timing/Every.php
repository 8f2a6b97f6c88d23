<?php

declare(strict_types=1);

namespace VividLedger\Rule\Timing;

use VividLedger\Shape\Context;
use VividLedger\Shape\FormField;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Counted;
use VividLedger\Shape\Slot\Interval;
use VividLedger\Shape\TimeReader;
use VividLedger\Shape\Way;
use VividLedger\Time\Due;
use VividLedger\Words\Words;

/** Every so often, from when the rule fired: at most so many times, or, in a rule that says what ends it, until then. */
final readonly class Every implements Timing
{
    use Plain;

    public const MOST = 100;

    /** @param  ?int  $times  null for as often as it takes */
    private function __construct(private Due $due, private ?int $times)
    {
    }

    public static function kind(): string
    {
        return 'every';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('every {due}, at most {times} times')->says('every {due}')
            ->orSaid(
                '(every|each) {due} for at most {times} times',
                '(every|each) {due}, (maximum|max|at most) {times}',
                '(every|each) {due}(, up to|, at most|, no more than|, not more than|, for|, maximum|, max|, a maximum of) {times} '
                    .'(times|time|in all)',
                '(every|each) {due}[,] {times} times[ at most|in all|]', '{times} times[,] (every|each|once every) {due}',
                '(up to|at most) {times} times[,] (every|each) {due}',
            )->slot('due', new Interval)->slot('times', new Counted(1, self::MOST));
    }

    /** @return array{Shape, Shape} */
    public static function parted(): array
    {
        return [
            Shape::of(self::kind())->orSaid('(every|each) {due}', 'once every {due}')->slot('due', new Interval),
            Shape::of()->orSaid(
                '(up to|at most|no more than|not more than|for|a maximum of|maximum|max) {times} (times|time|in all)',
                '{times} times[ at most| in all|]',
            )->slot('times', new Counted),
        ];
    }

    public static function label(): string
    {
        return 'every so often';
    }

    public static function ways(Context $context, int $place): array
    {
        return [new Way(self::label(), ['kind' => self::kind()], [
            FormField::time(['amount' => 3, 'unit' => 'day'], least: 1, hasTime: true, hasClock: true),
            FormField::number(
                key: 'times', label: 'at most', behind: 'times', starts: 5, least: 1, most: self::MOST, isNeeded: false,
            ),
        ])];
    }

    public static function read(Context $context, Node $node): ?self
    {
        $due = TimeReader::due($node);
        if (is_string($due)) {
            return $context->problem($node->at, 'wrong_type', $due);
        }
        $times = $node->child('times')->isMissing() ? null : $node->child('times')->raw;
        if ($due->amount->amount < 1) {
            return $context->problem($node->at, 'out_of_range', Words::say('Give an amount of 1 or more: every 2 days.'));
        }

        return $times !== null && (! is_int($times) || $times < 1 || $times > self::MOST)
            ? $context->problem($node->at, 'out_of_range', Words::say('Say how many times at most, from 1 to {most}.', most: self::MOST))
            : new self($due, $times);
    }

    public function margin(): string
    {
        return $this->due->amount->amount === 1 ? "each {$this->due->amount->unit->word()}" : "each {$this->due->length()}";
    }

    public function said(): string
    {
        $every = $this->due->amount->amount === 1 ? "every {$this->due->amount->unit->word()}" : "every {$this->due->length()}";

        return trim("{$every} {$this->due->rest()}").($this->times === null ? '' : ", at most {$this->times} "
            .($this->times === 1 ? 'time' : 'times'));
    }

    public function note(): string
    {
        return $this->said();
    }

    public function due(Occasion $occasion): \DateTimeImmutable
    {
        return $occasion->reckon($this->due->times($occasion->turn), $occasion->started);
    }

    /** What an interruption made it miss stays out: two at once would be one too many. */
    public function again(Occasion $occasion, \DateTimeImmutable $now): ?array
    {
        for ($turn = $occasion->turn + 1; $this->times === null || $turn <= $this->times; $turn++) {
            $due = $this->due($occasion->atTurn($turn));
            if ($due > $now) {
                return [$turn, $due];
            }
        }

        return null;
    }

    public function repeats(): bool
    {
        return true;
    }

    public function isEndless(): bool
    {
        return $this->times === null;
    }
}
