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
use VividLedger\Shape\Slot\Length;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Slip\SlipStatus;
use VividLedger\Time\Due;
use VividLedger\Words\Words;

/** When the slip that another line sent is answered, or answered in a certain way, or so long after. */
final readonly class WhenSlipAnswered implements Timing
{
    use FollowsLine;

    /** @param  string  $with  what has to be chosen; empty for any answer */
    private function __construct(private string $key, private string $with, private Due $due)
    {
    }

    public static function kind(): string
    {
        return 'answered';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('once {line} is answered[ with {with}] {rest}', ['amount' => 0, 'unit' => 'day'])
            ->says('{after} after {line} is answered[ with {with}] {rest}')
            ->orSaidWith(
                ['amount' => 0, 'unit' => 'day'],
                '(when|as soon as|after|if) {line} (is|was|has been) answered[ with {with}] {rest}',
            )
            ->slot('line', new Quoted(40, pattern: Json::NAME['pattern']))->slot('with', new Quoted(80))
            ->slot('after', new Length)->slot('rest', new DueRest);
    }

    public static function label(): string
    {
        return 'when a slip is answered';
    }

    public static function ways(Context $context, int $place): array
    {
        $answers = [new Offer('anything', null)];
        foreach ($context->sheet->waitables->allEnds(WaitedSort::Slip) as $answer) {
            $answers[] = new Offer("“{$answer}”", $answer);
        }

        return Waited::ways(
            all: $context->sheet->waitables, sort: WaitedSort::Slip, place: $place, label: self::label(), kind: self::kind(),
            fields: [
                FormField::choice('with', 'with', $answers),
                FormField::time(['amount' => 0, 'unit' => 'day'], hasTime: true, hasClock: true),
            ],
        );
    }

    public static function read(Context $context, Node $node): ?self
    {
        $key = self::line($context, $node, WaitedSort::Slip, Words::say('Choose a line above that sends a reply slip.'));
        $due = self::after($context, $node, Words::say('The line comes after the slip is answered.'));
        $with = $node->child('with')->text() ?? '';
        if ($key === null || $due === null) {
            return null;
        }
        if ($with !== '' && ! in_array($with, $context->sheet->waitables->ends(WaitedSort::Slip, $key), true)) {
            return $context->problem(
                $node->child('with')->at,
                'unknown_answer',
                Words::say('The slip has no answer “{with}” to choose.', with: $with),
            );
        }

        return new self($key, $with, $due);
    }

    public function margin(): string
    {
        $said = $this->with === '' ? 'answered' : "“{$this->with}”";

        return $this->isAtOnce() ? "when {$said}" : "{$this->due->length()} after {$said}";
    }

    public function said(): string
    {
        $with = $this->with === '' ? '' : " with “{$this->with}”";

        return $this->follows("it is answered{$with}");
    }

    public function due(Occasion $occasion): ?\DateTimeImmutable
    {
        $slip = $occasion->tasks;

        return $slip?->doneAt === null || ! $this->fits($slip) ? null : $occasion->reckon($this->due, $slip->doneAt);
    }

    public function isNeedless(Awaited $tasks, int $turn = 1): bool
    {
        return $tasks->ended !== '' && ! $this->fits($tasks);
    }

    private function fits(Awaited $slip): bool
    {
        return $slip->ended === SlipStatus::Answered->value && ($this->with === '' || in_array($this->with, $slip->said, true));
    }
}
