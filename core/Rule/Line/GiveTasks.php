<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Record\WaitedSort;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;

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
            ->slot('tasks', new TasksSlot(self::MOST));
    }

    public static function label(): string
    {
        return 'Give several tasks';
    }

    public static function read(Context $context, Node $node): ?self
    {
        $read = self::shape()->read($context, $node);

        return $read === null ? null : new self($read->all('tasks', TaskPlan::class));
    }

    public function waitedAs(): WaitedSort
    {
        return WaitedSort::Tasks;
    }

    public function ends(): array
    {
        return [];
    }

    public function perform(ActionContext $performance): void
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
