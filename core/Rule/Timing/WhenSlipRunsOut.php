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
use VividLedger\Shape\Slot\Length;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Shape\TimeReader;
use VividLedger\Slip\SlipStatus;
use VividLedger\Time\Due;
use VividLedger\Words\Words;

/** When the slip that another line sent stays without an answer and nobody is left to ask, or so long after. */
final readonly class WhenSlipRunsOut implements Timing
{
    use Plain;

    private function __construct(private string $key, private Due $due)
    {
    }

    public static function kind(): string
    {
        return 'run_out';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('once {line} runs out {rest}', ['amount' => 0, 'unit' => 'day'])
            ->says('{after} after {line} runs out {rest}')
            ->orSaidWith(
                ['amount' => 0, 'unit' => 'day'],
                '(when|as soon as|after|if) {line} (runs out|is not answered|stays without an answer|is left without an answer) {rest}',
            )
            ->slot('line', new Quoted(40, pattern: Json::NAME['pattern']))->slot('after', new Length)->slot('rest', new DueRest);
    }

    public static function label(): string
    {
        return 'when a slip stays without an answer';
    }

    public static function ways(Context $context, int $place): array
    {
        return Waited::ways(
            all: $context->sheet->waitables, sort: WaitedSort::Slip, place: $place, label: self::label(), kind: self::kind(),
            fields: [
                FormField::time(['amount' => 0, 'unit' => 'day'], hasTime: true, hasClock: true),
            ],
        );
    }

    public static function read(Context $context, Node $node): ?self
    {
        $key = $node->child('line')->text() ?? '';
        $due = TimeReader::due($node);
        if ($context->sheet->waitables->called(WaitedSort::Slip, $key) === null) {
            return $context->problem($node->at, 'unknown_line', Words::say('Choose a line above that sends a reply slip.'));
        }
        if (is_string($due) || $due->amount->amount < 0) {
            return $context->problem(
                $node->at,
                'wrong_type',
                is_string($due) ? $due : Words::say('The line comes after the slip has run out.'),
            );
        }

        return new self($key, $due);
    }

    /** @return array{} */
    public static function parted(): array
    {
        return [];
    }

    public function margin(): string
    {
        return $this->due->amount->amount === 0 ? 'if unanswered' : "{$this->due->length()} unanswered";
    }

    public function said(): string
    {
        $when = $this->due->amount->amount === 0 ? 'once' : "{$this->due->length()} after";

        return trim("{$when} it stays without an answer {$this->due->rest()}");
    }

    public function note(): string
    {
        return $this->due->rest();
    }

    public function due(Occasion $occasion): ?\DateTimeImmutable
    {
        $slip = $occasion->tasks;

        return $slip?->doneAt === null || $slip->ended !== SlipStatus::RunOut->value ? null
            : $occasion->reckon($this->due, $slip->doneAt);
    }

    public function waitsFor(): string
    {
        return $this->key;
    }

    public function isNeedless(Awaited $tasks, int $turn = 1): bool
    {
        return $tasks->ended !== '' && $tasks->ended !== SlipStatus::RunOut->value;
    }
}
