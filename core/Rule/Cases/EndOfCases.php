<?php

declare(strict_types=1);

namespace VividLedger\Rule\Cases;

use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;

/** Where cases end: the lines below it are done whichever case it was. */
final class EndOfCases implements CaseHeading
{
    use HeadingOfCase;

    public static function kind(): string
    {
        return 'in_all_cases';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('Within it, in all cases:', ['inner' => true])->says('In all cases:')
            ->orSaid('(in (all|any|each|every|either|both) cases|in any case|either way|whichever it was|in all of them|end if)[:]')
            ->orSaidWith(['inner' => true], 'within (it|that|this)[ case][,] in (all|any|each|every|either) cases[:]');
    }

    public static function label(): string
    {
        return 'In all cases';
    }

    public static function read(Context $context, Node $node): self
    {
        return self::plain($context, $node, 'In all cases');
    }

    public static function part(): CasePart
    {
        return CasePart::End;
    }
}
