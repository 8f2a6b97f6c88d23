<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Record\WaitedSort;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Shape\Context;
use VividLedger\Shape\Kinds;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;

/** Gives a task to a person: "Give the owner’s manager a task “Ring {contact.name}” due 1 day later". */
final readonly class GiveTask implements GivesTasks, Line
{
    public function __construct(private TaskPlan $task)
    {
    }

    public static function kind(): string
    {
        return 'give_task';
    }

    public static function shape(): Shape
    {
        // People say it in so many ways that it is put together once.
        return Kinds::once(self::class, static fn (): Shape => TaskPlan::said(Shape::of(self::kind())->starts(TaskPlan::BEGUN)));
    }

    public static function label(): string
    {
        return 'Give a task';
    }

    public static function read(Context $context, Node $node): ?self
    {
        $read = self::shape()->read($context, $node);

        return $read === null ? null : new self(TaskPlan::of($read));
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
        $this->task->perform($performance);
    }

    public function people(): array
    {
        return ['to' => $this->task->to];
    }
}
