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
use VividLedger\SignOff\SignOffStatus;
use VividLedger\Time\Due;
use VividLedger\Words\Words;

/** When the sign-off that another line asked for has ended, in whichever way or in a certain one, or so long after. */
final readonly class WhenSignedOff implements Timing
{
    use FollowsLine;

    private const ANY = 'over';

    /** @param  ?SignOffStatus  $status  null for whichever end it comes to */
    private function __construct(private string $key, private ?SignOffStatus $status, private Due $due)
    {
    }

    public static function kind(): string
    {
        return 'signed_off';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('once {line} is {status} {rest}', ['amount' => 0, 'unit' => 'day'])
            ->says('{after} after {line} is {status} {rest}')
            ->orSaidWith(['amount' => 0, 'unit' => 'day'], '(when|as soon as|after|if) {line} (is|was|has been) {status} {rest}')
            ->orSaidWith(
                ['amount' => 0, 'unit' => 'day', 'status' => self::ANY], '(once|when|as soon as|after) {line} (has ended|ends) {rest}',
            )
            ->slot('line', new Quoted(40, pattern: Json::NAME['pattern']))->slot('after', new Length)->slot('rest', new DueRest)
            ->slot('status', self::labels());
    }

    /** @return array<string, mixed> as a rule file writes it: when the sign-off of a line has ended, in whichever way */
    public static function over(string $line): array
    {
        return ['kind' => self::kind(), 'line' => $line, 'status' => self::ANY, 'amount' => 0, 'unit' => 'day'];
    }

    public static function label(): string
    {
        return 'when a sign-off ends';
    }

    public static function ways(Context $context, int $place): array
    {
        $statuses = [new Offer(self::ANY, self::ANY, hint: 'in whichever way it ends'), ...array_map(
            static fn (SignOffStatus $status): Offer => new Offer($status->word(), $status->value),
            self::ends(),
        )];

        return Waited::ways(
            all: $context->sheet->waitables, sort: WaitedSort::SignOff, place: $place, label: self::label(), kind: self::kind(),
            fields: [
                FormField::choice('status', 'is', $statuses, SignOffStatus::Agreed->value),
                FormField::time(['amount' => 0, 'unit' => 'day'], hasTime: true, hasClock: true),
            ],
        );
    }

    public static function read(Context $context, Node $node): ?self
    {
        $key = self::line($context, $node, WaitedSort::SignOff, Words::say('Choose a line above that asks for a sign-off.'));
        $due = self::after($context, $node, Words::say('The line comes after the sign-off has ended.'));
        $end = $node->child('status')->text() ?? '';
        $status = SignOffStatus::tryFrom($end);
        if ($key === null || $due === null) {
            return null;
        }
        if ($end !== self::ANY && ($status === null || ! in_array($status, self::ends(), true))) {
            return $context->problem($node->at, 'wrong_type', Words::say('Choose how the sign-off ends.'));
        }

        return new self($key, $status, $due);
    }

    public function margin(): string
    {
        return $this->isAtOnce() ? "when {$this->word()}" : "{$this->due->length()} after {$this->word()}";
    }

    public function said(): string
    {
        return $this->follows("it is {$this->word()}");
    }

    public function due(Occasion $occasion): ?\DateTimeImmutable
    {
        $signOff = $occasion->tasks;

        return $signOff?->doneAt === null || $this->isNeedless($signOff) ? null
            : $occasion->reckon($this->due, $signOff->doneAt);
    }

    public function isNeedless(Awaited $tasks, int $turn = 1): bool
    {
        return $this->status !== null && $tasks->ended !== '' && $tasks->ended !== $this->status->value;
    }

    private function word(): string
    {
        return $this->status?->word() ?? self::ANY;
    }

    private static function labels(): Labels
    {
        $labels = [self::ANY => self::ANY];
        foreach (self::ends() as $status) {
            $labels[$status->word()] = $status->value;
        }

        return Labels::of($labels, ['signed off' => 'agreed', 'approved' => 'agreed', 'rejected' => 'declined', 'refused' => 'declined']);
    }

    /** @return list<SignOffStatus> the ways it can end that a line can wait for */
    private static function ends(): array
    {
        return [SignOffStatus::Agreed, SignOffStatus::Declined, SignOffStatus::Withdrawn, SignOffStatus::TimedOut, SignOffStatus::Stopped];
    }
}
