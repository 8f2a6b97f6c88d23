<?php

declare(strict_types=1);

namespace VividLedger\Rule\Guard;

use VividLedger\Schema\RecordType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;

/** When the conditions hold after the change and did not hold before it; a new record held nothing before. */
final readonly class BecomesTrue implements RepeatGuard
{
    use Forgetful;

    public static function kind(): string
    {
        return 'becomes_true';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->opens(RepeatGuards::chooser(...))->apart('again')->says('when the conditions become true')->orSaid(
            '[only ](when|once|each time|every time|as soon as|whenever|the moment|at the moment) '
                .'(the conditions|conditions|the condition|they|it|all '
                .'conditions) [first |newly |start to |starts to |begin to |begins to |come to |are |are newly |are first |](become '
                .'true|becomes true|turn true|turns true|hold|holds|be true|get true|come true|apply|applies|go true|met|are met|become '
                .'met|change to true|switch to true|true)[ again]',
            '[only ]on becoming true',
            'when (the conditions|they|it|the condition) (start|starts|begin|begins) to (hold|be true|apply)',
            'when the condition[s] (become|becomes|turn|turns|get|gets) true', '(only |)when the conditions did not hold before',
            'when it (becomes|turns) true', 'when the condition[s] first (hold|holds|become true|are met)',
            'when the condition[s] (come|comes) true', 'once the conditions become true', 'when the conditions are newly (met|true)',
            'when the condition[s] (start|starts) holding', 'each time the conditions become true', 'when the conditions change to true',
        );
    }

    public static function label(RecordType $type): string
    {
        return 'when the conditions become true';
    }

    public static function read(Context $context, Node $node): ?self
    {
        return self::shape()->read($context, $node) === null ? null : new self;
    }

    public function wording(): string
    {
        return 'when the conditions become true';
    }

    public function wantsTurn(): bool
    {
        return true;
    }
}
