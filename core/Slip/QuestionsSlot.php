<?php

declare(strict_types=1);

namespace VividLedger\Slip;

use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Kinds;
use VividLedger\Shape\Node;
use VividLedger\Shape\Part;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\OneShape;
use VividLedger\Shape\Slot\Series;
use VividLedger\Shape\WordedAs;
use VividLedger\Words\Words;

/** What a slip asks, one question after another. */
final readonly class QuestionsSlot extends WordedAs
{
    /** @return list<Question> */
    public function read(Context $context, Node $node, Filled $around): array
    {
        $items = $node->items();
        $questions = [];
        $labels = [];
        $context->sheet->answers = [];
        foreach ($items as $index => $item) {
            if ($index > 0) {
                $context->glue(';');
            }
            $question = Questions::read($context, $item);
            if ($question === null) {
                continue;
            }
            if (isset($labels[$question->label])) {
                $context->problem(
                    $item->at,
                    'twice',
                    Words::say('“{question}” is asked twice. Ask it in other words.', question: $question->label),
                );
            }
            $labels[$question->label] = true;
            $questions[] = $question;
            if ($question->choices() !== []) {
                $context->sheet->answers[$question->label] = $question->choices();
            }
        }
        if (count($items) > Questions::MOST) {
            $context->problem($node->at, 'too_many', Words::say('A slip asks at most {most} questions.', most: Questions::MOST));
        }
        $next = "{$node->at}/".count($items);
        $editor = Editor::choose('Ask', Questions::offers(...));
        if ($items === []) {
            $context->gap('ask something', $next, $editor, 'missing', Words::say('Say what is asked.'));
        } else {
            $context->more('+ question', $next, $editor);
        }

        return $questions;
    }

    /** @return ?list<Question> questions as a file writes them, read for themselves; null when they are not sound */
    public static function written(Context $context, Node $asks): ?array
    {
        $inner = new Context($context->schema, $context->directory, $context->type, $context->zone);
        $inner->row(Part::Line, $asks);
        $questions = (new self)->read($inner, $asks, new Filled);

        return $inner->sheet->problems === [] ? $questions : null;
    }

    protected function slot(): Series
    {
        return new Series(
            Kinds::once(self::class, static fn (): OneShape => new OneShape(
                static fn (): array => array_map(static fn (string $kind): Shape => $kind::shape(), Questions::all()),
                'question',
            )),
            1,
            Questions::MOST,
        );
    }
}
