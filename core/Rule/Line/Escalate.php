<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Engine\Performance;
use VividLedger\Rule\Ladder\Ladder;
use VividLedger\Rule\Ladder\Ladders;
use VividLedger\Rule\Reading\Context;
use VividLedger\Rule\Reading\Node;

/** Goes up a ladder, rung by rung, until something ends the run. Which rung it is tells the turn. */
final readonly class Escalate implements Line
{
    private function __construct(public Ladder $ladder)
    {
    }

    public static function kind(): string
    {
        return 'escalate';
    }

    public static function label(): string
    {
        return 'Escalate up a ladder';
    }

    public static function read(Context $context, Node $node): ?self
    {
        $context->glue('Go up');
        $ladder = Ladders::read($context, $node);

        return $ladder === null ? null : new self($ladder);
    }

    public function perform(Performance $performance): void
    {
        $this->ladder->rung($performance->turn)->climb($performance, count($this->ladder->rungs));
    }
}
