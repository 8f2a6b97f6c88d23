<?php

declare(strict_types=1);

namespace VividLedger\Slip\Question;

use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Slip\Asking;
use VividLedger\Slip\LabelSlot;
use VividLedger\Slip\Question;
use VividLedger\Slip\Questions;
use VividLedger\Slip\ShownIf;

/** A date. */
final class AskDate implements Asking
{
    public static function kind(): string
    {
        return 'date';
    }

    public static function shape(): Shape
    {
        return Questions::shape(self::kind(), '{label} as a date', '{label} with a date')
            ->starts(['label' => ''])->slot('label', new LabelSlot);
    }

    public static function label(): string
    {
        return 'a date';
    }

    public static function read(Context $context, Node $node): ?Question
    {
        $read = self::shape()->read($context, $node);

        return $read === null ? null : new Question(
            $read->text('label'),
            new Field('answer', $read->text('label'), FieldType::Date),
            isNeeded: $read->flag('needed'),
            onlyIf: $read->any('onlyIf', ShownIf::class),
        );
    }
}
