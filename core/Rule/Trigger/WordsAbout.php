<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Json;
use VividLedger\Shape\Node;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Shape\WordedAs;
use VividLedger\Shape\WordRole;

/** What has to be mentioned in a comment, a reply, the name of a file or the title of a task. */
final readonly class WordsAbout extends WordedAs
{
    public function read(Context $context, Node $node, Filled $around): string
    {
        $about = trim($node->text() ?? '');
        $context->word("“{$about}”", WordRole::Value, $node->at, Editor::line('Words in it', 200, mayBeEmpty: true));

        return $about;
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
        $context->more('+ that mentions', $node->at, Editor::line('Words in it', 200, mayBeEmpty: true));
    }

    public function schema(): array
    {
        return Json::text();
    }

    protected function slot(): Quoted
    {
        return new Quoted;
    }
}
