<?php

declare(strict_types=1);

namespace VividLedger\Slip\Question;

use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Addable;
use VividLedger\Shape\Slot\Counted;
use VividLedger\Slip\Asking;
use VividLedger\Slip\LabelSlot;
use VividLedger\Slip\Question;
use VividLedger\Slip\Questions;
use VividLedger\Slip\ShownIf;
use VividLedger\Words\Words;

/** A number, within bounds. */
final class AskNumber implements Asking
{
    private const MOST = 1_000_000;

    public static function kind(): string
    {
        return 'number';
    }

    public static function shape(): Shape
    {
        $bound = static fn (string $more, string $label): Addable => new Addable(
            new Counted(0, self::MOST, label: $label),
            $more,
            Editor::number($label, 0, self::MOST),
        );

        return Questions::shape(self::kind(), '{label} as a number[ of at least {least}][ and at most {most}]', '{label} with a number')
            ->starts(['label' => ''])->slot('label', new LabelSlot)
            ->slot('least', $bound('+ at least', 'At least'))->slot('most', $bound('+ at most', 'At most'));
    }

    public static function label(): string
    {
        return 'a number';
    }

    public static function read(Context $context, Node $node): ?Question
    {
        $read = self::shape()->read($context, $node);
        if ($read === null) {
            return null;
        }
        $bound = static fn (string $key): ?string => $read->raw($key) === null ? null : (string) $read->number($key);
        if ($bound('least') !== null && $bound('most') !== null && $read->number('least') > $read->number('most')) {
            return $context->problem($node->at, 'out_of_range', Words::say('The least has to be below the most.'));
        }

        return new Question($read->text('label'), new Field(
            'answer', $read->text('label'), FieldType::Number, min: $bound('least'), max: $bound('most'),
        ), isNeeded: $read->flag('needed'), onlyIf: $read->any('onlyIf', ShownIf::class));
    }
}
