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
use VividLedger\Shape\Slot\Counted;
use VividLedger\Shape\Slot\ItsType;

/** So many times in all. */
final readonly class SoManyTimes implements RepeatGuard
{
    use UsedUp;

    private const MOST = 1000;

    private function __construct(private int $times, private string $wording)
    {
    }

    public static function kind(): string
    {
        return 'so_many_times';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->opens(RepeatGuards::chooser(...))->apart('again')
            ->says('at most {times} times in all[, ready again when {again}]')->orSaid(
                '(at most|up to|no more than|not more than|only|maximum|max|a maximum of) {times} times[ (per|for each|for every) {}|'
                    .'in all|in total|]'
                    .'[, ready again when {again}]',
                '{times} times (in all|in total|at most|per {}|for each {})[, ready again when {again}]',
            )->slot('times', new Counted(1, self::MOST, isTextToo: true))->slot('', new ItsType)->slot('again', new ConditionSlot);
    }

    public static function label(RecordType $type): string
    {
        return 'at most so many times in all';
    }

    public static function read(Context $context, Node $node): ?self
    {
        $times = self::shape()->read($context, $node)?->number('times');

        return $times === null ? null : new self($times, "{$times} times per {$context->type->inSentence()}");
    }

    public function wording(): string
    {
        return $this->wording;
    }

    public function holdsBack(GuardState $state, Record $record, \DateTimeImmutable $now, Closure $isUsed): bool
    {
        return $state->count >= $this->times;
    }

    public function key(Record $record, string $occasion, GuardState $state): string
    {
        return 'firing:'.($state->count + 1);
    }

    public function isForGood(): bool
    {
        return false;
    }
}
