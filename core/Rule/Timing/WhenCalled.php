<?php

declare(strict_types=1);

namespace VividLedger\Rule\Timing;

use VividLedger\Facts\Awaited;
use VividLedger\Record\WaitedSort;
use VividLedger\Rule\Performance\CallMade;
use VividLedger\Shape\Context;
use VividLedger\Shape\FormField;
use VividLedger\Shape\Json;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\DueRest;
use VividLedger\Shape\Slot\Labels;
use VividLedger\Shape\Slot\Length;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Time\Due;
use VividLedger\Words\Words;

/** When the call that another line made has succeeded, or failed for good, or so long after. */
final readonly class WhenCalled implements Timing
{
    use FollowsLine;

    private const ENDS = ['has succeeded' => CallMade::SUCCEEDED, 'has failed' => CallMade::FAILED];

    private function __construct(private string $key, private string $ended, private Due $due)
    {
    }

    public static function kind(): string
    {
        return 'called';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('once {line} {ended} {rest}', ['amount' => 0, 'unit' => 'day'])
            ->says('{after} after {line} {ended} {rest}')
            ->orSaidWith(['amount' => 0, 'unit' => 'day'], '(when|as soon as|after|if) {line} {ended} {rest}')
            ->slot('line', new Quoted(40, pattern: Json::NAME['pattern']))->slot('after', new Length)->slot('rest', new DueRest)
            ->slot('ended', Labels::of(self::ENDS, ['succeeds' => CallMade::SUCCEEDED, 'fails' => CallMade::FAILED]));
    }

    public static function label(): string
    {
        return 'when a call has ended';
    }

    public static function ways(Context $context, int $place): array
    {
        return Waited::ways(
            all: $context->sheet->waitables, sort: WaitedSort::Call, place: $place, label: self::label(), kind: self::kind(),
            fields: [
                FormField::choice('ended', 'and', array_map(
                    static fn (string $said, string $ended): Offer => new Offer($said, $ended),
                    array_keys(self::ENDS),
                    self::ENDS,
                ), CallMade::SUCCEEDED),
                FormField::time(['amount' => 0, 'unit' => 'day'], hasTime: true, hasClock: true),
            ],
        );
    }

    public static function read(Context $context, Node $node): ?self
    {
        $key = self::line($context, $node, WaitedSort::Call, Words::say('Choose a line above that calls another system.'));
        $due = self::after($context, $node, Words::say('The line comes after the call has ended.'));
        $ended = $node->child('ended')->text() ?? '';
        if ($key === null || $due === null) {
            return null;
        }
        if (! in_array($ended, self::ENDS, true)) {
            return $context->problem($node->child('ended')->at, 'wrong_type', Words::say('Choose how the call ends.'));
        }

        return new self($key, $ended, $due);
    }

    public function margin(): string
    {
        return $this->isAtOnce() ? "when {$this->ended}" : "{$this->due->length()} after it {$this->ended}";
    }

    public function said(): string
    {
        return $this->follows("the call has {$this->ended}");
    }

    public function due(Occasion $occasion): ?\DateTimeImmutable
    {
        $call = $occasion->tasks;

        return $call?->doneAt === null || $call->ended !== $this->ended ? null : $occasion->reckon($this->due, $call->doneAt);
    }

    public function isNeedless(Awaited $tasks, int $turn = 1): bool
    {
        return $tasks->ended !== '' && $tasks->ended !== $this->ended;
    }
}
