<?php

declare(strict_types=1);

namespace VividLedger\Slip;

use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Slot\Many;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Shape\WordedAs;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** The answers that can be chosen: "“Done” or “Not done”". */
final readonly class OptionsSlot extends WordedAs
{
    private const MOST = 12;

    private const LENGTH = 80;

    /** @return list<string> */
    public function read(Context $context, Node $node, Filled $around): array
    {
        $items = $node->items();
        $editor = Editor::line('An answer', self::LENGTH, mayBeEmpty: true);
        $options = [];
        foreach ($items as $index => $item) {
            if ($index > 0) {
                $context->glue($index === count($items) - 1 ? 'or' : ',');
            }
            $option = trim($item->text() ?? '');
            if ($option === '' || mb_strlen($option) > self::LENGTH || in_array($option, $options, true)) {
                $message = $option === '' ? Words::say('Write the answer.')
                    : Words::say('Each answer stands there once, with at most {most} characters.', most: self::LENGTH);
                $context->gap($option === '' ? 'which answer?' : "“{$option}”", $item->at, $editor, 'wrong_type', $message);
            } else {
                $context->word("“{$option}”", WordRole::Value, $item->at, $editor);
            }
            $options[] = $option;
        }
        if (count($items) < 2 || count($items) > self::MOST) {
            $context->problem($node->at, 'wrong_type', Words::say('Give from 2 to {most} answers to choose from.', most: self::MOST));
        }
        $context->more('+ answer', "{$node->at}/".count($items), $editor);

        return $options;
    }

    protected function slot(): Many
    {
        return new Many(new Quoted(self::LENGTH), 'or', 2, most: self::MOST, isSet: true);
    }
}
