<?php

declare(strict_types=1);

namespace VividLedger\Rule\Guard;

use Closure;
use VividLedger\Engine\GuardState;
use VividLedger\Record\Record;
use VividLedger\Schema\RecordType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Edit;
use VividLedger\Shape\Node;
use VividLedger\Shape\WordRole;

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

    public static function label(RecordType $type): string
    {
        return "only so many times per {$type->inSentence()}:";
    }

    public static function read(Context $context, Node $node): ?self
    {
        $context->word(self::label($context->type), WordRole::Value, $node->at, Edit::Guard);
        $at = $node->child('times');
        $times = is_string($at->raw) && preg_match('/^\d{1,4}$/', $at->raw) === 1 ? (int) $at->raw : $at->raw;
        if (! is_int($times) || $times < 1 || $times > self::MOST) {
            return $context->gap('how often', $at->at, Edit::Number, 'missing', 'Give a whole number from 1 to '.self::MOST.'.');
        }
        $context->word((string) $times, WordRole::Value, $at->at, Edit::Number);

        return new self($times, "{$times} times per {$context->type->inSentence()}");
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
}
