<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\People\PersonExpressions;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Series;
use VividLedger\Shape\WordedAs;
use VividLedger\Words\Words;

/** Several tasks: "the owner a task “Ring”; and the creator a task “Write”". */
final readonly class TasksSlot extends WordedAs
{
    public function __construct(private int $most)
    {
    }

    /** @return ?list<TaskPlan> */
    public function read(Context $context, Node $node, Filled $around): ?array
    {
        $items = $node->items();
        $tasks = [];
        foreach ($items as $index => $item) {
            if ($index > 0) {
                $context->glue('; and');
            }
            $read = self::one()->read($context, $item);
            $tasks[] = $read === null ? null : TaskPlan::of($read);
        }
        if ($items === []) {
            $who = Editor::choose('Who', static fn (): array => PersonExpressions::offers($context));

            return $context->gap('a task', "{$node->at}/0/to", $who, 'missing', Words::say('Add a task to the line.'));
        }
        if (count($items) > $this->most) {
            return $context->problem($node->at, 'too_many', Words::say('A line gives at most {most} tasks.', most: $this->most));
        }
        $context->more('+ task', "{$node->at}/".count($items), Editor::begin(TaskPlan::BEGUN));
        $read = array_values(array_filter($tasks));

        return count($read) === count($items) ? $read : null;
    }

    private static function one(): Shape
    {
        return Shape::of()->says(TaskPlan::SAID)->takes(TaskPlan::slots())->needs('title')->always('due');
    }

    protected function slot(): Series
    {
        return new Series(self::one(), 2, $this->most);
    }
}
