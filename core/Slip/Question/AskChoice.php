<?php

declare(strict_types=1);

namespace VividLedger\Slip\Question;

use VividLedger\Schema\Choice;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Slip\Asking;
use VividLedger\Slip\LabelSlot;
use VividLedger\Slip\OptionsSlot;
use VividLedger\Slip\Question;
use VividLedger\Slip\Questions;
use VividLedger\Slip\ShownIf;

/** One of some answers; lines can wait for one of them. */
final class AskChoice implements Asking
{
    public static function kind(): string
    {
        return 'choice';
    }

    public static function shape(): Shape
    {
        return Questions::shape(self::kind(), '{label} with {options}', '{label} (choosing|one of|to choose from) {options}')
            ->starts(['label' => '', 'options' => ['Yes', 'No']])
            ->slot('label', new LabelSlot)->slot('options', new OptionsSlot);
    }

    public static function label(): string
    {
        return 'one of some answers';
    }

    public static function read(Context $context, Node $node): ?Question
    {
        $read = self::shape()->read($context, $node);
        $options = array_values(array_filter((array) $read?->raw('options'), is_string(...)));

        return $read === null ? null : new Question($read->text('label'), new Field(
            'answer', $read->text('label'), FieldType::Choice,
            choices: array_map(static fn (string $option): Choice => new Choice($option, $option), $options),
        ), isNeeded: $read->flag('needed'), onlyIf: $read->any('onlyIf', ShownIf::class));
    }
}
