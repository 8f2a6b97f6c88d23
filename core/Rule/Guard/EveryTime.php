<?php

declare(strict_types=1);

namespace VividLedger\Rule\Guard;

use VividLedger\Schema\RecordType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;

/** At every change that the trigger accepts and the conditions allow. */
final readonly class EveryTime implements RepeatGuard
{
    use Forgetful;

    public static function kind(): string
    {
        return 'every_time';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->opens(RepeatGuards::chooser(...))->apart('again')->says('every time')->orSaid(
            '(always[ fire]|each and every time|no limit|without any limit|without limits|on every occasion|each time this happens)',
            '(each time|every single time|whenever it happens|without limit|any number of times|as often as it happens|at '
                .'every change)',
            '(every|each) time it happens', 'every time the (conditions hold|rule is triggered)',
        );
    }

    public static function label(RecordType $type): string
    {
        return 'every time';
    }

    public static function read(Context $context, Node $node): ?self
    {
        return self::shape()->read($context, $node) === null ? null : new self;
    }

    public function wording(): string
    {
        return 'every time';
    }

    public function wantsTurn(): bool
    {
        return false;
    }
}
