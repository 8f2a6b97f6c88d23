<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Rule\Ladder\Ladder;
use VividLedger\Rule\Ladder\LadderName;
use VividLedger\Rule\Ladder\Ladders;
use VividLedger\Rule\Ladder\Rung;
use VividLedger\Rule\Ladder\RungAct;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Schema\RecordType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\ItsType;
use VividLedger\Shape\Slot\Series;

/** Goes up a ladder, rung by rung, until something ends the run. Which rung it is tells the turn. */
final readonly class Escalate implements Climbs, Line, Writes
{
    private function __construct(private Ladder $ladder)
    {
    }

    public static function kind(): string
    {
        return 'escalate';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('Go up the ladder {ladder}')->says('Go up these rungs: {rungs}')->orSaid(
            '(escalate|climb|go)[ {}]( up|)( the ladder| using the ladder| with the ladder| via the ladder| through the ladder| on '
                .'the ladder| using| along the ladder| by the ladder| with the ladder| through| via|:| with| by| along|) {ladder}',
            '(start|use|follow|take|begin|run) the (ladder|escalation) {ladder}', 'the ladder {ladder}',
            'escalate[ {}] (up|along|by|with|using|via) the {ladder}[ ladder]',
        )->slot('ladder', new LadderName)->slot('rungs', new Series(Rung::shape(), 1, Ladder::MOST))->slot('', new ItsType);
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

    public function writes(RecordType $own): array
    {
        $acts = array_merge(...array_map(static fn (Rung $rung): array => $rung->acts, $this->ladder->rungs));

        return [
            ...(in_array(RungAct::Reassign, $acts, true) ? [new Written($own->name, $own->owner, false, null, true)] : []),
            ...(in_array(RungAct::Raise, $acts, true) ? [new Written($own->name, 'priority', false, null, true)] : []),
        ];
    }

    public function makes(): null
    {
        return null;
    }

    public function perform(ActionContext $performance): void
    {
        $this->ladder->rung($performance->turn)->climb($performance, count($this->ladder->rungs));
    }

    public function ladder(): Ladder
    {
        return $this->ladder;
    }
}
