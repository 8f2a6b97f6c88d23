<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use Closure;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Row;
use VividLedger\Shape\Shape;
use VividLedger\Shape\WordRole;

/** Whether it is within the working hours of the company's calendar: its hours, its holidays, its zone. */
final readonly class WorkingTime extends OfTheMoment
{
    public static function shapes(): array
    {
        return [
            Shape::of('working_hours')->says('it is within working hours')->orSaid(
                '[it is |it’s ](within|during|in|inside) (working hours|office hours|business hours|working time)',
            ),
            Shape::of('not_working_hours')->says('it is outside working hours')->orSaid(
                '[it is |it’s ](outside|out of|not within|not during|not in) (working hours|office hours|business hours|working time)',
            ),
        ];
    }

    public static function offers(Context $context, Node $node): array
    {
        return [new Offer('within working hours', ['kind' => 'working_hours'], 'The moment')];
    }

    public static function read(Context $context, Node $node, Row $row): self
    {
        $negated = $node->kind() === 'not_working_hours';
        $context->word('it is', WordRole::Field, $node->child('field')->at, Subjects::chooser($context, $node));
        $kinds = static fn (): array => [new Offer('within', 'working_hours'), new Offer('outside', 'not_working_hours')];
        $context->choice($negated ? 'outside' : 'within', WordRole::Glue, $node->child('kind')->at, $kinds);
        $context->glue('working hours');

        return new self($context->zone, $negated, $row->text());
    }

    protected function isAt(\DateTimeImmutable $at, Closure $calendar): bool
    {
        return $calendar()->between($at, $at->modify('+1 second')) > 0;
    }
}
