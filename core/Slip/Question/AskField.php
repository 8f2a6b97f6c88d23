<?php

declare(strict_types=1);

namespace VividLedger\Slip\Question;

use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Path;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Slip\AnsweredPath;
use VividLedger\Slip\Asking;
use VividLedger\Slip\LabelSlot;
use VividLedger\Slip\Question;
use VividLedger\Slip\Questions;
use VividLedger\Slip\ShownIf;

/** A field of the record, or of one that it refers to: the answer is written there. */
final class AskField implements Asking
{
    public static function kind(): string
    {
        return 'field';
    }

    public static function shape(): Shape
    {
        return Questions::shape(self::kind(), 'the field {path}[ as {label}]', 'the {path}[ as {label}]', '{path}')
            ->slot('path', new AnsweredPath)->slot('label', new LabelSlot('+ in other words'));
    }

    public static function label(): string
    {
        return 'a field of the record';
    }

    public static function read(Context $context, Node $node): ?Question
    {
        $read = self::shape()->read($context, $node);
        if ($read === null) {
            return null;
        }
        $path = $read->the('path', Path::class);
        $label = $read->text('label') === '' ? $path->field->label : $read->text('label');

        return new Question($label, $path->field, $path, $read->flag('needed'), $read->any('onlyIf', ShownIf::class));
    }

    /** Whether somebody outside can fill it in: who is meant by a person or a record, only those inside know. */
    public static function isMeant(Field $field): bool
    {
        return $field->isSettable() && ! in_array($field->type, [FieldType::Person, FieldType::Reference, FieldType::Tags], true);
    }
}
