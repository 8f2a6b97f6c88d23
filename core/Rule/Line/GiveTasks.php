<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\People\PersonExpressions;
use VividLedger\Rule\Performance\Performance;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Series;

/** Gives several tasks at one event, each with its own person, title and date. */
final readonly class GiveTasks implements GivesTasks, Line
{
    public const MOST = 20;

    /** @param  list<TaskPlan>  $tasks */
    private function __construct(private array $tasks)
    {
    }

    public static function kind(): string
    {
        return 'give_tasks';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->starts(['tasks' => [TaskPlan::BEGUN, TaskPlan::BEGUN]])->says('Give {tasks}')
            ->slot('tasks', new Series(self::one(), 2, self::MOST));
    }

    public static function label(): string
    {
        return 'Give several tasks';
    }

    public static function read(Context $context, Node $node): ?self
    {
        $list = $node->child('tasks');
        $items = $list->items();
        $context->glue('Give');
        $tasks = [];
        foreach ($items as $index => $item) {
            if ($index > 0) {
                $context->glue('; and');
            }
            $read = self::one()->read($context, $item);
            $tasks[] = $read === null ? null : TaskPlan::of($read);
        }
        if ($items === []) {
            return $context->gap(
                'a task',
                "{$list->at}/0/to",
                Editor::choose('Who', static fn (): array => PersonExpressions::offers($context)),
                'missing',
                'Add a task to the line.',
            );
        }
        if (count($items) > self::MOST) {
            return $context->problem($list->at, 'too_many', 'A line gives at most '.self::MOST.' tasks.');
        }
        $context->more('+ task', "{$list->at}/".count($items), Editor::begin(TaskPlan::BEGUN));
        $read = array_values(array_filter($tasks));

        return count($read) === count($items) ? new self($read) : null;
    }

    private static function one(): Shape
    {
        return Shape::of()->says(TaskPlan::SAID)->takes(TaskPlan::slots())->needs('title')->always('due');
    }

    public function perform(Performance $performance): void
    {
        foreach ($this->tasks as $task) {
            $task->perform($performance);
        }
    }

    public function people(): array
    {
        $people = [];
        foreach ($this->tasks as $place => $task) {
            $people["tasks/{$place}/to"] = $task->to;
        }

        return $people;
    }
}
