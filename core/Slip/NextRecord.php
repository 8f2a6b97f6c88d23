<?php

declare(strict_types=1);

namespace VividLedger\Slip;

use VividLedger\Condition\Condition;
use VividLedger\Facts\Candidates;
use VividLedger\Facts\View;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Gap;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Addable;
use VividLedger\Shape\Slot\Also;
use VividLedger\Shape\Slot\Counted;
use VividLedger\Shape\Slot\OwnField;

/** The next record of a kind: "the next Partner among ‘On call’, by Visits done, with fewer than 3 of them open". */
final readonly class NextRecord implements NextInLine
{
    private const MOST_OPEN = 1000;

    private function __construct(private Field $field, private Candidates $candidates)
    {
    }

    public static function kind(): string
    {
        return 'record';
    }

    public static function shape(): Shape
    {
        $label = 'How many may wait for one of them';

        return Shape::of(self::kind())
            ->says('pass it on to the next {field}[ among {among}][, by {by}][, {down}][, with fewer than {most} waiting]')
            ->orSaid('(ask|try|send it to) the next {field}[ among {among}][, by {by}][, {down}][, with fewer than {most} waiting]')
            ->slot('field', new OwnField(
                static fn (Field $field): bool => $field->type === FieldType::Reference && $field->isSettable(),
                new Gap('choose who', 'Choose the field that says whose turn it is.'),
            ))
            ->slot('among', new AmongSlot)->slot('by', new RankedBy)
            ->slot('down', new Also('the highest first', 'the lowest first', static fn ($around): bool => $around->raw('by') !== null))
            ->slot('most', new Addable(
                new Counted(1, self::MOST_OPEN, label: $label),
                '+ with fewer than so many waiting',
                Editor::number($label, 1, self::MOST_OPEN),
            ));
    }

    public static function label(): string
    {
        return 'pass it on to the next of a kind';
    }

    public static function read(Context $context, Node $node): ?self
    {
        $read = self::shape()->read($context, $node);
        if ($read === null) {
            return null;
        }
        $field = $read->the('field', Field::class);

        return new self($field, new Candidates(
            $field->target ?? '', $read->any('among', Condition::class), $read->any('by', Field::class)?->name, $read->flag('down'),
            $read->raw('most') === null ? null : $read->number('most'),
        ));
    }

    public function next(View $view, array $asked): ?int
    {
        return $view->facts->candidates($this->candidates, $asked);
    }

    public function field(): Field
    {
        return $this->field;
    }
}
