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
use VividLedger\Shape\Slot\Counted;
use VividLedger\Shape\Slot\DueRest;
use VividLedger\Shape\Slot\Length;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\SignOff\StepsSlot;
use VividLedger\Time\Due;
use VividLedger\Words\Words;

/** When a step of the sign-off that another line asked for has been agreed to, or so long after. */
final readonly class WhenStepAgreed implements Timing
{
    use FollowsLine;

    /** @param  int  $step  from 1 */
    private function __construct(private string $key, private int $step, private Due $due)
    {
    }

    public static function kind(): string
    {
        return 'step_agreed';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('once step {step} of {line} is agreed {rest}', ['amount' => 0, 'unit' => 'day'])
            ->says('{after} after step {step} of {line} is agreed {rest}')
            ->orSaidWith(
                ['amount' => 0, 'unit' => 'day'],
                '(when|as soon as|after) step {step} of {line} (is|was|has been) (agreed|approved|signed off) {rest}',
            )
            ->slot('line', new Quoted(40, pattern: Json::NAME['pattern']))->slot('step', new Counted(1, StepsSlot::MOST))
            ->slot('after', new Length)->slot('rest', new DueRest);
    }

    public static function label(): string
    {
        return 'when a step of a sign-off is agreed';
    }

    public static function ways(Context $context, int $place): array
    {
        return Waited::ways(
            all: $context->sheet->waitables, sort: WaitedSort::SignOff, place: $place, label: self::label(), kind: self::kind(),
            fields: [
                FormField::number(
                    key: 'step', label: 'step', behind: '', starts: 1, least: 1, most: StepsSlot::MOST,
                ),
                FormField::time(['amount' => 0, 'unit' => 'day'], hasTime: true, hasClock: true),
            ],
        );
    }

    public static function read(Context $context, Node $node): ?self
    {
        $key = self::line($context, $node, WaitedSort::SignOff, Words::say('Choose a line above that asks for a sign-off.'));
        $due = self::after($context, $node, Words::say('The line comes after the step is agreed.'));
        $step = $node->child('step')->raw;
        if ($key === null || $due === null) {
            return null;
        }
        if (! is_int($step) || $step < 1 || $step > StepsSlot::MOST) {
            return $context->problem($node->child('step')->at, 'wrong_type', Words::say('Say which step, from 1.'));
        }
        $steps = count($context->sheet->waitables->ends(WaitedSort::SignOff, $key));
        if ($step > $steps) {
            return $context->problem($node->child('step')->at, 'unknown_step', $steps === 1
                ? Words::say('This sign-off has one step only, so there is no step {step}.', step: $step)
                : Words::say('This sign-off has {steps} steps, so there is no step {step}.', steps: $steps, step: $step));
        }

        return new self($key, $step, $due);
    }

    public function margin(): string
    {
        return $this->isAtOnce() ? "step {$this->step}" : "{$this->due->length()} after step {$this->step}";
    }

    public function said(): string
    {
        return $this->follows("step {$this->step} is agreed");
    }

    public function due(Occasion $occasion): ?\DateTimeImmutable
    {
        $agreed = $occasion->tasks?->steps[$this->step - 1] ?? null;

        return $agreed === null ? null : $occasion->reckon($this->due, $agreed);
    }

    public function isNeedless(Awaited $tasks, int $turn = 1): bool
    {
        return $tasks->ended !== '' && ! isset($tasks->steps[$this->step - 1]);
    }
}
