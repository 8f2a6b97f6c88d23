<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Slot\Labels;
use VividLedger\Shape\WordedAs;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** The priority of a task: "high-priority". Nothing in the file is a normal one. */
final readonly class PrioritySlot extends WordedAs
{
    private const ALSO = [
        'low priority' => 'low', 'normal priority' => 'normal', 'high priority' => 'high', 'important' => 'high', 'urgent' => 'high',
        'a low priority' => 'low', 'a normal priority' => 'normal', 'a high priority' => 'high', 'unimportant' => 'low',
        'priority high' => 'high', 'priority low' => 'low',
    ];

    public function read(Context $context, Node $node, Filled $around): ?TaskPriority
    {
        $priority = TaskPriority::tryFrom($node->text() ?? '');
        if ($priority === null) {
            return $context->gap(
                'choose a priority',
                $node->at,
                Editor::choose('Priority', $this->offers(...)),
                'wrong_type',
                Words::say('A task has low, normal or high priority.'),
            );
        }
        $context->choice("{$priority->value}-priority", WordRole::Value, $node->at, $this->offers(...));

        return $priority;
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
        $context->more('+ priority', $node->at, Editor::choose('Priority', $this->offers(...)));
    }

    public function schema(): array
    {
        return $this->slot()->schema();
    }

    protected function slot(): Labels
    {
        $labels = [];
        foreach (TaskPriority::cases() as $priority) {
            $labels["{$priority->value}-priority"] = $priority->value;
        }

        return Labels::of($labels, self::ALSO);
    }

    /** @return list<Offer> */
    private function offers(): array
    {
        return array_map(
            static fn (TaskPriority $priority): Offer => new Offer(
                "{$priority->value} priority",
                $priority === TaskPriority::Normal ? null : $priority->value,
            ),
            TaskPriority::cases(),
        );
    }
}
