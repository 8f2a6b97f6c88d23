<?php

declare(strict_types=1);

namespace VividLedger\Rule\Timing;

use VividLedger\Record\WaitedSort;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\TimeReader;
use VividLedger\Time\Due;

/** A timing that follows what another line has begun, or comes so long after it. Whoever uses it has a `$key` and a `$due`. */
trait FollowsLine
{
    use Plain;

    /** @return array{} */
    public static function parted(): array
    {
        return [];
    }

    public function note(): string
    {
        return $this->due->rest();
    }

    public function waitsFor(): string
    {
        return $this->key;
    }

    /** @return ?string the name of the line that is followed; null when none above has it, and the problem is noted */
    private static function line(Context $context, Node $node, WaitedSort $sort, string $problem): ?string
    {
        $key = $node->child('line')->text() ?? '';

        return $context->sheet->waitables->called($sort, $key) === null ? $context->problem($node->at, 'unknown_line', $problem) : $key;
    }

    /** @return ?Due how long after; null when it cannot be read or lies before, and the problem is noted */
    private static function after(Context $context, Node $node, string $before): ?Due
    {
        $due = TimeReader::due($node);

        return is_string($due) || $due->amount->amount < 0
            ? $context->problem($node->at, 'wrong_type', is_string($due) ? $due : $before) : $due;
    }

    private function isAtOnce(): bool
    {
        return $this->due->amount->amount === 0;
    }

    /** "once it is agreed", "2 days after it is agreed at 09:00" */
    private function follows(string $what): string
    {
        return trim(($this->isAtOnce() ? 'once' : "{$this->due->length()} after")." {$what} {$this->due->rest()}");
    }
}
