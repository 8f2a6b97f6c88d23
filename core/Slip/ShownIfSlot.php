<?php

declare(strict_types=1);

namespace VividLedger\Slip;

use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Shape\WordedAs;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** The answer to a question above that makes another one come up: "“Is it done?” is “No”". */
final readonly class ShownIfSlot extends WordedAs
{
    public function read(Context $context, Node $node, Filled $around): ?ShownIf
    {
        $question = $node->child('question')->text() ?? '';
        $is = $node->child('is')->text() ?? '';
        if (! in_array($is, $context->sheet->answers[$question] ?? [], true)) {
            $message = Words::say('Choose an answer to a question above it.');

            return $context->gap('which answer?', $node->at, self::editor($context), 'unknown_answer', $message);
        }
        $context->word("“{$question}” is “{$is}”", WordRole::Value, $node->at, self::editor($context));

        return new ShownIf($question, $is);
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
        if ($context->sheet->answers !== []) {
            $context->more('+ only if', $node->at, self::editor($context));
        }
    }

    protected function slot(): Shape
    {
        return Shape::of()->says('{question} is {is}')->slot('question', new Quoted(Questions::LABEL))->slot('is', new Quoted);
    }

    private static function editor(Context $context): Editor
    {
        $answers = $context->sheet->answers;

        return Editor::choose('Asked only if', static function () use ($answers): array {
            $offers = [new Offer('always', null)];
            foreach ($answers as $question => $said) {
                foreach ($said as $is) {
                    $offers[] = new Offer("“{$question}” is “{$is}”", ['question' => (string) $question, 'is' => $is]);
                }
            }

            return $offers;
        });
    }
}
