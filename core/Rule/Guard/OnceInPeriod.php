<?php

declare(strict_types=1);

namespace VividLedger\Rule\Guard;

use Closure;
use VividLedger\Condition\ConditionSlot;
use VividLedger\Facts\GuardState;
use VividLedger\Record\Record;
use VividLedger\Schema\RecordType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\LengthOf;
use VividLedger\Time\Amount;
use VividLedger\Time\WorkingCalendar;

/** At most once in so much time, counted from the last firing. */
final readonly class OnceInPeriod implements RepeatGuard
{
    use UsedUp;

    private function __construct(private Amount $period, private WorkingCalendar $calendar)
    {
    }

    public static function kind(): string
    {
        return 'once_in_period';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->opens(RepeatGuards::chooser(...))->apart('again')
            ->says('at most once in {period}[, ready again when {again}]')
            ->orSaid(
                'once (every|in|per|a) {period}[,] (at most|at the most|maximum|max)',
                '(max|maximum|at the most) once (in|every|per|a|within) {period}[, ready again when {again}]',
                '(not more than|no more than|no more often than|not more often than|at most|only|just|) once (in|every|per|a|within|'
                    .'each) {period}'
                    .'[, ready again when {again}]',
                '(not more than|no more than|at most|maximum|only) (once|one time) (in any|per|in) {period}',
                'not again (within|for) {period}', '(not|never) twice (within|in) {period}', '(every|each) {period} at most',
                'wait {period} before (firing|it fires|doing it) again', '(no|not) more often than (every|each) {period}',
            )->slot('period', new LengthOf(bare: true))->slot('again', new ConditionSlot);
    }

    public static function label(RecordType $type): string
    {
        return 'at most once in';
    }

    public static function read(Context $context, Node $node): ?self
    {
        $period = self::shape()->read($context, $node)?->the('period', Amount::class);

        return $period === null ? null : new self($period, $context->directory->calendar(null));
    }

    public function wording(): string
    {
        return "at most once in {$this->period->unit->label($this->period->amount)}";
    }

    public function holdsBack(GuardState $state, Record $record, \DateTimeImmutable $now, Closure $isUsed): bool
    {
        return $state->last !== null && $this->period->from($state->last, $this->calendar->zone, $this->calendar) > $now;
    }

    /** Numbered, so that of two that raced past each other only one can be kept. */
    public function key(Record $record, string $occasion, GuardState $state): string
    {
        return 'firing:'.($state->count + 1);
    }

    public function isForGood(): bool
    {
        return false;
    }
}
