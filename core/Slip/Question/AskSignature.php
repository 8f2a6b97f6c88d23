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

/** A name as a signature, kept with the moment of the answer. */
final class AskSignature implements Asking
{
    public static function kind(): string
    {
        return 'signature';
    }

    public static function shape(): Shape
    {
        return Questions::shape(self::kind(), '{label} signed by name', '{label} with (a name|a signature)')
            ->starts(['label' => ''])->slot('label', new LabelSlot);
    }

    public static function label(): string
    {
        return 'a signature by name';
    }

    public static function read(Context $context, Node $node): ?Question
    {
        $read = self::shape()->read($context, $node);

        return $read === null ? null : new Question(
            $read->text('label'),
            new Field('answer', $read->text('label'), FieldType::Text, maxLength: 120),
            isNeeded: $read->flag('needed'),
            onlyIf: $read->any('onlyIf', ShownIf::class),
        );
    }
}
