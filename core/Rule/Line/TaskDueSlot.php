<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Shape\Context;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\DueRest;
use VividLedger\Shape\Slot\Far;
use VividLedger\Shape\Slot\Length;
use VividLedger\Shape\Slot\MomentPath;
use VividLedger\Shape\WordedAs;

/** When a task falls due: "2 days later", "1 day before Due", "tomorrow". */
final readonly class TaskDueSlot extends WordedAs
{
    public function read(Context $context, Node $node, Filled $around): ?TaskDue
    {
        return TaskDue::read($context, $node) ?: null;
    }

    public function schema(): array
    {
        return ['type' => ['object', 'null']] + $this->slot()->schema();
    }

    protected function slot(): Shape
    {
        static $shape = null;

        return $shape instanceof Shape ? $shape : $shape = Shape::of()->says('{far} {from} {rest}')
            ->says('at once', ['amount' => 0, 'unit' => 'day'])
            ->says('the same day {rest}', ['amount' => 0, 'unit' => 'day'])->says('{length} later {rest}')
            ->orSaid(
                '(in|within|after) {length}[’ time|’s time] {rest}', '{length}[ from now| after that| afterwards| from then|] {rest}',
                '{far} the day (of|) {from} {rest}',
            )
            ->orSaidWith([
                'amount' => 0, 'unit' => 'day',
            ], '(now|immediately|straight away|right away|at once)', '(today|that day|on the same day|that same day) {rest}',
                '(by|at|when) {from} {rest}', 'on the day {from} {rest}')
            ->orSaidWith(['amount' => 1, 'unit' => 'day'], '[by ](tomorrow|the next day|the following day|the day after) {rest}')
            ->orSaidWith(['amount' => 1, 'unit' => 'working_day'], '[by |on ]the (next|following) (working|business|work) day {rest}')
            ->orSaidWith(['amount' => 1, 'unit' => 'week'], '[by ](next week|a week later|in a week|a week from now) {rest}')
            ->slot('far', new Far('on'))->slot('from', new MomentPath)->slot('length', new Length)->slot('rest', new DueRest);
    }
}
