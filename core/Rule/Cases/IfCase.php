<?php

declare(strict_types=1);

namespace VividLedger\Rule\Cases;

use VividLedger\Condition\ConditionSlot;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;

/** Where cases begin: the lines below it are done if its conditions hold when its time comes. */
final class IfCase implements CaseHeading
{
    use HeadingOfCase;

    public static function kind(): string
    {
        return 'if';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->starts(['that' => ['kind' => 'all', 'of' => [[]]]])
            ->says('Within it, if {that}:', ['inner' => true])->says('If {that}:')
            ->orSaid('[in ]case {that}:', 'when {that}:', 'provided[ that] {that}:')
            ->orSaidWith(
                ['inner' => true],
                'within (it|that|this)[ case][,] (if|when) {that}:', 'and if {that}:', 'in that case, if {that}:',
            )
            ->slot('that', new ConditionSlot(isRoot: true));
    }

    public static function label(): string
    {
        return 'If … (cases)';
    }

    public static function read(Context $context, Node $node): ?self
    {
        return self::asking($context, $node, 'If');
    }

    public static function part(): CasePart
    {
        return CasePart::First;
    }
}
