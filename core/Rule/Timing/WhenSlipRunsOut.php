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
use VividLedger\Slip\SlipStatus;
use VividLedger\Time\Due;
use VividLedger\Words\Words;

/** When the slip that another line sent stays without an answer and nobody is left to ask, or so long after. */
final readonly class WhenSlipRunsOut implements Timing
{
    use FollowsLine;

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
        $key = self::line($context, $node, WaitedSort::Slip, Words::say('Choose a line above that sends a reply slip.'));
        $due = self::after($context, $node, Words::say('The line comes after the slip has run out.'));
        if ($key === null || $due === null) {
            return null;
        }

        return new self($key, $due);
    }

    public function margin(): string
    {
        return $this->isAtOnce() ? 'if unanswered' : "{$this->due->length()} unanswered";
    }

    public function said(): string
    {
        return $this->follows('it stays without an answer');
    }

    public function due(Occasion $occasion): ?\DateTimeImmutable
    {
        $slip = $occasion->tasks;

        return $slip?->doneAt === null || $slip->ended !== SlipStatus::RunOut->value ? null
            : $occasion->reckon($this->due, $slip->doneAt);
    }

    public function isNeedless(Awaited $tasks, int $turn = 1): bool
    {
        return $tasks->ended !== '' && $tasks->ended !== SlipStatus::RunOut->value;
    }
}
