<?php

declare(strict_types=1);

namespace VividLedger\Slip;

use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Shape\WordedAs;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** A question as it is asked, in quotes. */
final readonly class LabelSlot extends WordedAs
{
    /** @param  string  $more  what adds it where it need not be there */
    public function __construct(private string $more = '')
    {
    }

    public function read(Context $context, Node $node, Filled $around): ?string
    {
        $label = trim($node->text() ?? '');
        $editor = Editor::line('The question', Questions::LABEL, mayBeEmpty: $this->more !== '');
        if ($label === '' || mb_strlen($label) > Questions::LABEL) {
            $message = $label === ''
                ? Words::say('Write the question.')
                : Words::say('A question has at most {label} characters.', label: Questions::LABEL);

            return $context->gap('which question?', $node->at, $editor, 'missing', $message);
        }
        $context->word("“{$label}”", WordRole::Value, $node->at, $editor);

        return $label;
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
        if ($this->more !== '') {
            $context->more($this->more, $node->at, Editor::line('The question', Questions::LABEL));
        }
    }

    protected function slot(): Quoted
    {
        return new Quoted(Questions::LABEL);
    }
}
