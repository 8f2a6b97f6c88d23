<?php

declare(strict_types=1);

namespace VividLedger\Rule\Timing;

use VividLedger\Facts\Awaited;
use VividLedger\Record\WaitedSort;
use VividLedger\Shape\Context;
use VividLedger\Shape\FormField;
use VividLedger\Shape\Json;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\DueRest;
use VividLedger\Shape\Slot\Labels;
use VividLedger\Shape\Slot\Length;
use VividLedger\Shape\Slot\LengthOf;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Shape\TimeReader;
use VividLedger\Time\Due;
use VividLedger\Words\Words;

/** When the tasks of another line are done, or so long after; with a time-out, after which it is done anyway or left out. */
final readonly class WhenTasksDone implements Timing
{
    use Plain;

    private function __construct(private string $key, private string $name, private Due $due, private ?Due $timeOut, private bool $anyway)
    {
    }

    public static function kind(): string
    {
        return 'done';
    }

    public static function shape(): Shape
    {
        $rest = ' {rest}[, not if that takes {timeOut}][, {then}]';

        return Shape::of(self::kind())->says("once {line} is done{$rest}", ['amount' => 0, 'unit' => 'day'])
            ->says("{after} after {line} is done{$rest}")
            ->orSaidWith(['amount' => 0, 'unit' => 'day'], "(when|as soon as|after) {line} is (done|finished|completed){$rest}")
            ->orSaid("{after} after {line} (is|was|has been) (done|finished|completed){$rest}")
            ->slot('line', new Quoted(40, pattern: Json::NAME['pattern']))->slot('after', new Length)->slot('rest', new DueRest)
            ->slot('timeOut', new LengthOf)
            ->slot('then', Labels::of(['and then anyway' => 'anyway', 'and then not' => 'leave_out']));
    }

    public static function label(): string
    {
        return 'when a task is done';
    }

    public static function ways(Context $context, int $place): array
    {
        return Waited::ways(
            all: $context->sheet->waitables, sort: WaitedSort::Tasks, place: $place, label: self::label(), kind: self::kind(),
            fields: [
                FormField::time(['amount' => 0, 'unit' => 'day'], hasTime: true, hasClock: true),
                FormField::time(['amount' => 7, 'unit' => 'day'], 'timeOut', 'wait no longer than', least: 1, isNeeded: false),
                FormField::choice('then', 'and then', [new Offer('leave the line out', null), new Offer('do it anyway', 'anyway')]),
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
        $timeOut = $node->child('timeOut')->isMissing() ? null : TimeReader::due($node->child('timeOut'));
        if (is_string($due) || is_string($timeOut)) {
            return $context->problem($node->at, 'wrong_type', is_string($due) ? $due : (string) $timeOut);
        }
        $then = $node->child('then')->text() ?? 'leave_out';
        if ($due->amount->amount < 0 || ($timeOut !== null && $timeOut->amount->amount < 1)
            || ! in_array($then, ['leave_out', 'anyway'], true)) {
            return $context->problem(
                $node->at,
                'out_of_range',
                Words::say('The line comes after the task is done, and a time-out lasts at least 1 of its unit.'),
            );
        }

        return new self($key, $name, $due, $timeOut, $then === 'anyway');
    }

    /** @return array{} */
    public static function parted(): array
    {
        return [];
    }

    public function margin(): string
    {
        return $this->due->amount->amount === 0 ? 'when done' : "{$this->due->length()} after done";
    }

    public function said(): string
    {
        $when = ($this->due->amount->amount === 0 ? 'once' : "{$this->due->length()} after")." {$this->name} is done";
        $late = $this->timeOut === null ? ''
            : ($this->anyway ? "or after {$this->timeOut->length()} anyway" : "not if that takes {$this->timeOut->length()}");

        return implode(', ', array_filter([trim("{$when} {$this->due->rest()}"), $late]));
    }

    public function note(): string
    {
        return $this->said();
    }

    public function due(Occasion $occasion): ?\DateTimeImmutable
    {
        $tasks = $occasion->tasks;

        return match (true) {
            $tasks === null => null,
            $tasks->doneAt !== null => $occasion->reckon($this->due, $tasks->doneAt),
            $this->timeOut === null => null,
            default => $occasion->reckon($this->timeOut, $tasks->givenAt),
        };
    }

    public function waitsFor(): string
    {
        return $this->key;
    }

    public function isNeedless(Awaited $tasks, int $turn = 1): bool
    {
        return $tasks->open > 0 && ! $this->anyway;
    }
}
