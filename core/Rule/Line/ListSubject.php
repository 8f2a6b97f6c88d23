<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Shape\WordedAs;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** The subject of a list, which is the same for everybody. */
final readonly class ListSubject extends WordedAs
{
    public function read(Context $context, Node $node, Filled $around): ?string
    {
        $most = SendList::SUBJECT_LENGTH;
        $subject = trim($node->text() ?? '');
        $editor = Editor::line('Subject', $most);
        if ($subject === '' || mb_strlen($subject) > $most) {
            $code = $subject === '' ? 'missing' : 'too_long';

            return $context->gap('write a subject', $node->at, $editor, $code, Words::say(
                'Give the list a subject of at most {most} characters.',
                most: $most,
            ));
        }
        $context->word("“{$subject}”", WordRole::Value, $node->at, $editor);

        return $subject;
    }

    protected function slot(): Quoted
    {
        return new Quoted(SendList::SUBJECT_LENGTH);
    }
}
