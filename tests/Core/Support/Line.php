<?php

declare(strict_types=1);

namespace Tests\Core\Support;

use VividLedger\Facts\View;
use VividLedger\Message\Address;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Slip\NextInLine;
use VividLedger\Slip\Reach;
use VividLedger\Slip\SlipWay;

/** People in a row, whom a slip goes along: some can be reached by mail, some by text message, some by neither. */
final class Line implements NextInLine, SlipWay
{
    /** From this candidate on a rule answers each turn by ending the slip. */
    public ?int $endsAt = null;

    /** @var list<int> to whom the record was set */
    public array $set = [];

    /** @param  array<int, array{bool, bool}>  $people  by id: whether they have mail, and a phone */
    public function __construct(private readonly array $people)
    {
    }

    public static function kind(): string
    {
        return 'in_a_row';
    }

    public static function shape(): Shape
    {
        throw new \LogicException('It is never written.');
    }

    public static function label(): string
    {
        return 'in a row';
    }

    public static function read(Context $context, Node $node): ?self
    {
        return null;
    }

    public function next(View $view, array $asked): ?int
    {
        return array_values(array_diff(array_keys($this->people), $asked))[0] ?? null;
    }

    public function field(): Field
    {
        return new Field('owner', 'Owner', FieldType::Person);
    }

    public function turnTo(int $candidate): ?Reach
    {
        $this->set[] = $candidate;

        return $this->endsAt !== null && $candidate >= $this->endsAt ? null : $this->reach($candidate);
    }

    public function reach(int $candidate): Reach
    {
        [$mail, $phone] = $this->people[$candidate];

        return new Reach(
            $mail ? new Address("Person {$candidate}", "p{$candidate}@crews.example") : null,
            $phone ? new Address("Person {$candidate}", "+49 30 5550 {$candidate}") : null,
            "Person {$candidate}",
        );
    }
}
