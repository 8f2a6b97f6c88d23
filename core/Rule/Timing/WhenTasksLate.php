<?php

declare(strict_types=1);

namespace VividLedger\Rule\Timing;

use VividLedger\Facts\Awaited;
use VividLedger\Record\WaitedSort;
use VividLedger\Shape\Context;
use VividLedger\Shape\FormField;
use VividLedger\Shape\Json;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\DueRest;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Shape\Slot\SignedLength;
use VividLedger\Shape\TimeReader;
use VividLedger\Time\Due;
use VividLedger\Words\Words;

/** So long after the task of another line fell due, as long as it is not done. */
final readonly class WhenTasksLate implements Timing
{
    use Plain;

    private function __construct(private string $key, private string $name, private Due $due)
    {
    }

    public static function kind(): string
    {
        return 'late';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('when {line} falls due undone {rest}', ['amount' => 0, 'unit' => 'day'])
            ->says('{before} before {line} falls due {rest}')->says('{after} after {line} fell due undone {rest}')
            ->orSaidWith(['amount' => 0, 'unit' => 'day'], 'when {line} is (late|overdue) {rest}')
            ->orSaid('{after} after {line} (is|was) (late|overdue|due) {rest}', '{before} before {line} is due {rest}')
            ->slot('line', new Quoted(40, pattern: Json::NAME['pattern']))->slot('before', new SignedLength(-1))
            ->slot('after', new SignedLength(1))
            ->slot('rest', new DueRest);
    }

    public static function label(): string
    {
        return 'when a task is late';
    }

    public static function ways(Context $context, int $place): array
    {
        return Waited::ways(
            all: $context->sheet->waitables, sort: WaitedSort::Tasks, place: $place, label: self::label(), kind: self::kind(),
            fields: [
                FormField::time(['amount' => 0, 'unit' => 'day'], sides: ['after', 'before'], hasTime: true, hasClock: true),
            ],
        );
    }

    public static function read(Context $context, Node $node): ?self
    {
        $key = $node->child('line')->text() ?? '';
        $name = $context->sheet->waitables->called(WaitedSort::Tasks, $key);
        if ($name === null) {
            return $context->problem($node->at, 'unknown_line', Words::say('Choose a line above that gives a task.'));
        }
        $due = TimeReader::due($node);

        return is_string($due) ? $context->problem($node->at, 'wrong_type', $due) : new self($key, $name, $due);
    }

    /** @return array{} */
    public static function parted(): array
    {
        return [];
    }

    public function margin(): string
    {
        return match (true) {
            $this->due->amount->amount === 0 => 'when late',
            $this->due->amount->amount < 0 => "{$this->due->length()} before due",
            default => "{$this->due->length()} late",
        };
    }

    public function said(): string
    {
        $when = match (true) {
            $this->due->amount->amount === 0 => "when {$this->name} falls due undone",
            $this->due->amount->amount < 0 => "{$this->due->length()} before {$this->name} falls due, unless it is done",
            default => "{$this->due->length()} after {$this->name} fell due undone",
        };

        return trim("{$when} {$this->due->rest()}");
    }

    public function note(): string
    {
        return $this->said();
    }

    public function due(Occasion $occasion): ?\DateTimeImmutable
    {
        $tasks = $occasion->tasks;

        return $tasks === null || $tasks->due === null || $tasks->open === 0 ? null : $occasion->reckon($this->due, $tasks->due);
    }

    public function waitsFor(): string
    {
        return $this->key;
    }

    public function isNeedless(Awaited $tasks, int $turn = 1): bool
    {
        return $tasks->open === 0;
    }
}
