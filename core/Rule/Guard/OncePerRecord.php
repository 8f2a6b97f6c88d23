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
use VividLedger\Shape\Slot\ItsType;

/** Once in the life of a record, whichever page of the rule it was. */
final readonly class OncePerRecord implements RepeatGuard
{
    use UsedUp;

    private function __construct(private string $wording)
    {
    }

    public static function kind(): string
    {
        return 'once_per_record';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->opens(RepeatGuards::chooser(...))->apart('again')
            ->says('once per {}[, ready again when {again}]')
            ->orSaid(
                '[only |just ]once (per|for each|for every|for a|for the) {}[, ready again when {again}]',
                '[only |just ]once (a|each|in the life of a|on each|on a) {}[, ready again when {again}]',
                '[only |just ]once[ only|in all|in total|and never again|and for all|ever|][, ready again when {again}]',
                '(only|just) one time[ (per|for each|for every) {}]',
                'a single time[ (per|for each|for every) {}]',
                'never twice[ (for|per) {}]',
                'never more than once[ (per|for each|for every) {}]',
                'once (per|for each|for every) {} (only|and no more|and never again)',
                '(exactly|just|only) (once|the once|the first time)',
                'no more than once[ (per|for each|for every) {}]',
                'at most once[ (per|for each|for every) {}]',
                'one time (per|for each) {}',
                'one time[ only]', 'the first time[ only]',
            )
            ->slot('', new ItsType)->slot('again', new ConditionSlot);
    }

    public static function label(RecordType $type): string
    {
        return 'once per '.$type->inSentence();
    }

    public static function read(Context $context, Node $node): ?self
    {
        return self::shape()->read($context, $node) === null ? null : new self(self::label($context->type));
    }

    public function wording(): string
    {
        return $this->wording;
    }

    public function holdsBack(GuardState $state, Record $record, \DateTimeImmutable $now, Closure $isUsed): bool
    {
        return $state->count > 0;
    }

    public function key(Record $record, string $occasion, GuardState $state): string
    {
        return 'once';
    }

    public function isForGood(): bool
    {
        return true;
    }
}
