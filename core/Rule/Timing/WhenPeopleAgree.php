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
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Time\Due;
use VividLedger\Words\Words;

/** When the first of those who are asked for a sign-off agrees, or each time one of them does, or so long after. */
final readonly class WhenPeopleAgree implements HearsEachYes
{
    use FollowsLine;

    private const EACH = 'each';

    private const WHO = ['the first' => 'first', 'each' => self::EACH];

    private function __construct(private string $key, private bool $isEach, private Due $due)
    {
    }

    public static function kind(): string
    {
        return 'people_agree';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('once {who} agrees to {line} {rest}', ['amount' => 0, 'unit' => 'day'])
            ->says('{after} after {who} agrees to {line} {rest}')
            ->orSaidWith(
                ['amount' => 0, 'unit' => 'day'],
                '(when|as soon as|after) {who}[ of them| one] (agrees|has agreed|approves|signs off) (to |)[on ]{line} {rest}',
            )
            ->orSaidWith(
                ['amount' => 0, 'unit' => 'day', 'who' => self::EACH],
                '(each time|every time|whenever) (somebody|someone|one of them) (agrees|approves) (to |){line} {rest}',
            )
            ->slot('who', Labels::of(self::WHO, [
                'the first person' => 'first', 'one' => 'first', 'somebody' => 'first', 'someone' => 'first', 'every one' => self::EACH,
            ]))
            ->slot('line', new Quoted(40, pattern: Json::NAME['pattern']))->slot('after', new Length)->slot('rest', new DueRest);
    }

    public static function label(): string
    {
        return 'when people agree to a sign-off';
    }

    public static function ways(Context $context, int $place): array
    {
        $who = [];
        foreach (self::WHO as $label => $value) {
            $who[] = new Offer($label, $value);
        }

        return Waited::ways(
            all: $context->sheet->waitables, sort: WaitedSort::SignOff, place: $place, label: self::label(), kind: self::kind(),
            fields: [
                FormField::choice('who', 'when it is agreed to by', $who, self::WHO['the first']),
                FormField::time(['amount' => 0, 'unit' => 'day'], hasTime: true, hasClock: true),
            ],
        );
    }

    public static function read(Context $context, Node $node): ?self
    {
        $key = self::line($context, $node, WaitedSort::SignOff, Words::say('Choose a line above that asks for a sign-off.'));
        $due = self::after($context, $node, Words::say('The line comes after somebody agrees.'));
        $who = $node->child('who')->text();
        if ($key === null || $due === null) {
            return null;
        }
        if (! in_array($who, self::WHO, true)) {
            return $context->problem($node->child('who')->at, 'wrong_type', Words::say('Choose the first who agrees, or each.'));
        }

        return new self($key, $who === self::EACH, $due);
    }

    public function margin(): string
    {
        return $this->isAtOnce() ? "{$this->who()} yes" : "{$this->due->length()} after yes";
    }

    public function said(): string
    {
        return $this->follows("{$this->who()} agrees");
    }

    public function due(Occasion $occasion): ?\DateTimeImmutable
    {
        $yes = $occasion->tasks?->yes[$occasion->turn - 1] ?? null;

        return $yes === null ? null : $occasion->reckon($this->due, $yes);
    }

    public function again(Occasion $occasion, \DateTimeImmutable $now): ?array
    {
        $next = $occasion->turn + 1;
        if (! $this->isEach || $occasion->tasks === null || $this->isNeedless($occasion->tasks, $next)) {
            return null;
        }

        return [$next, $this->due($occasion->atTurn($next))];
    }

    public function repeats(): bool
    {
        return $this->isEach;
    }

    public function isNeedless(Awaited $tasks, int $turn = 1): bool
    {
        return $tasks->ended !== '' && ! isset($tasks->yes[$turn - 1]);
    }

    private function who(): string
    {
        return $this->isEach ? 'each' : 'the first';
    }
}
