<?php

declare(strict_types=1);

namespace VividLedger\Rule\Cases;

use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;

/** The last case: the lines below it are done where none above it held. */
final class OtherwiseCase implements CaseHeading
{
    use HeadingOfCase;

    public static function kind(): string
    {
        return 'otherwise';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('Within it, otherwise:', ['inner' => true])->says('Otherwise:')
            ->orSaid('(otherwise|else|if not|or else|if none of (these|those)|in (all other|every other|any other) cases)[:]')
            ->orSaidWith(['inner' => true], 'within (it|that|this)[ case][,] (otherwise|else)[:]');
    }

    public static function label(): string
    {
        return 'Otherwise';
    }

    public static function read(Context $context, Node $node): self
    {
        return self::plain($context, $node, 'Otherwise');
    }

    public static function part(): CasePart
    {
        return CasePart::Last;
    }
}
