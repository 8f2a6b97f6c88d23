<?php

declare(strict_types=1);

namespace VividLedger\Rule\Cases;

use VividLedger\Condition\ConditionSlot;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;

/** One more case: the lines below it are done if its conditions hold and those of no case above it. */
final class OrIfCase implements CaseHeading
{
    use HeadingOfCase;

    public static function kind(): string
    {
        return 'or_if';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->starts(['that' => ['kind' => 'all', 'of' => [[]]]])
            ->says('Within it, otherwise, if {that}:', ['inner' => true])->says('Otherwise, if {that}:')
            ->orSaid(
                '(otherwise|else|or|or else|if not)[,] (if|when|where) {that}[:|,]', '(elsif|elseif) {that}[:|,]',
            )
            ->orSaidWith(['inner' => true], 'within (it|that|this)[ case][,] (otherwise|else)[,] (if|when) {that}:')
            ->slot('that', new ConditionSlot(isRoot: true));
    }

    public static function label(): string
    {
        return 'Otherwise, if …';
    }

    public static function read(Context $context, Node $node): ?self
    {
        return self::asking($context, $node, 'Otherwise, if');
    }

    public static function part(): CasePart
    {
        return CasePart::Further;
    }
}
