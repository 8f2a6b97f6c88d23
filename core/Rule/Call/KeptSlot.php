<?php

declare(strict_types=1);

namespace VividLedger\Rule\Call;

use VividLedger\Schema\Field;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Many;
use VividLedger\Shape\Slot\OwnField;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Shape\WordedAs;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** What of the answer is kept, and where: "“number” in Account number". */
final readonly class KeptSlot extends WordedAs
{
    private const MOST = 20;

    /** @return list<KeptAnswer> */
    public function read(Context $context, Node $node, Filled $around): array
    {
        $items = $node->items();
        $kept = [];
        foreach ($items as $index => $item) {
            if ($index > 0) {
                $context->glue($index === count($items) - 1 ? 'and' : ',');
            }
            $from = trim($item->child('from')->text() ?? '');
            $line = Editor::line('Its name in the answer', 100);
            if ($from === '') {
                $context->gap('which part?', $item->child('from')->at, $line, 'missing', Words::say(
                    'Give the name that it has in the answer.',
                ));
            } else {
                $context->word("“{$from}”", WordRole::Value, $item->child('from')->at, $line);
            }
            $context->glue('in');
            $field = $context->type->field($item->child('field')->text() ?? '');
            $editor = Editor::choose('Keep it in', static fn (): array => self::fields($context));
            if ($field === null || ! $field->isSettable()) {
                $context->gap('choose a field', $item->child('field')->at, $editor, 'unknown_field', Words::say(
                    'Choose a field that can be set.',
                ));
            } else {
                $context->word($field->label, WordRole::Field, $item->child('field')->at, $editor);
                $kept[] = new KeptAnswer($from, $field);
            }
        }
        $this->more($context, $node, $around);

        return $kept;
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
        $at = "{$node->at}/".count($node->items());
        $context->more('+ keep', $at, Editor::choose('Keep of the answer, in', static fn (): array => array_map(
            static fn (Offer $offer): Offer => new Offer($offer->label, ['from' => 'number', 'field' => $offer->value]),
            self::fields($context),
        )));
    }

    protected function slot(): Many
    {
        return new Many(
            Shape::of()->says('{from} in {field}')->slot('from', new Quoted(100))
                ->slot('field', new OwnField(static fn (Field $field): bool => $field->isSettable())),
            'and',
            most: self::MOST,
        );
    }

    /** @return list<Offer> */
    private static function fields(Context $context): array
    {
        return array_values(array_map(
            static fn (Field $field): Offer => new Offer($field->label, $field->name),
            array_filter($context->type->fields, static fn (Field $field): bool => $field->isSettable()),
        ));
    }
}
