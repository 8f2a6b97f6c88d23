<?php

declare(strict_types=1);

namespace VividLedger\Rule\Timing;

use VividLedger\Condition\Condition;
use VividLedger\Condition\ConditionReader;
use VividLedger\Condition\ConditionSlot;
use VividLedger\Shape\Context;
use VividLedger\Shape\FormField;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\LengthOf;
use VividLedger\Shape\TimeReader;
use VividLedger\Shape\Way;
use VividLedger\Time\Due;
use VividLedger\Words\Words;

/**
 * Once conditions hold: at the change of the record that makes them true, even if they are no longer true by the time the line is done.
 * Like *until* they are read at each change of the record, and again when their time is up; where they do not hold then, the line is
 * struck out.
 */
final readonly class OnceTrue implements AwaitsConditions
{
    use Plain;

    private function __construct(private string $that, private ?Due $within, private ?Condition $condition = null)
    {
    }

    public static function kind(): string
    {
        return 'once_true';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('once {that}, within {within}')->says('once {that}')
            ->orSaid(
                '(as soon as|wait until|waiting until|wait for|when finally) {that}[,] (within|at most|for at most|waiting at most|inside) '
                    .'{within}',
                '(as soon as|wait until|waiting until|when finally) {that}',
            )
            ->slot('that', new ConditionSlot(isRoot: true))->slot('within', new LengthOf);
    }

    public static function label(): string
    {
        return 'once something is so';
    }

    public static function ways(Context $context, int $place): array
    {
        return [new Way(self::label(), ['kind' => self::kind(), 'that' => ['kind' => 'all', 'of' => [new \stdClass]]], [
            FormField::time(['amount' => 10, 'unit' => 'working_day'], key: 'within', label: 'within', least: 1),
        ])];
    }

    public static function read(Context $context, Node $node): ?self
    {
        $within = $node->child('within')->isMissing() ? null : TimeReader::due($node->child('within'));
        if (is_string($within) || ($within !== null && $within->amount->amount < 1)) {
            return $context->problem(
                $node->child('within')->at,
                'wrong_type',
                is_string($within) ? $within : Words::say('Give an amount of 1 or more.'),
            );
        }

        return new self($context->said(new ConditionSlot(isRoot: true), $node->child('that')->raw), $within);
    }

    public function reading(Context $context, Node $node): ?self
    {
        $that = $node->child('that');
        $begun = $that->isMissing() ? new Node(['kind' => 'all', 'of' => []], $that->at) : $that;
        $condition = ConditionReader::read($context, $begun, 'once', 1);

        return $condition === null ? null : new self($this->that, $this->within, $condition);
    }

    /** @return array{} */
    public static function parted(): array
    {
        return [];
    }

    public function margin(): string
    {
        return 'waits';
    }

    public function said(): string
    {
        return trim("once {$this->that} {$this->note()}");
    }

    public function note(): string
    {
        return $this->within === null ? '' : "within {$this->within->length()}";
    }

    public function due(Occasion $occasion): ?\DateTimeImmutable
    {
        return $occasion->met ?? ($this->within === null ? null : $occasion->reckon($this->within, $occasion->started));
    }

    public function becomes(): ?Condition
    {
        return $this->condition;
    }
}
