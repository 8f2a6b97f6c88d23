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

/** Whom a reply has to be from: a name, an address, or a part of one, such as "@noor.example". */
final readonly class WordsFrom extends WordedAs
{
    public function read(Context $context, Node $node, Filled $around): string
    {
        $from = trim($node->text() ?? '');
        $context->word("“{$from}”", WordRole::Value, $node->at, self::editor());

        return $from;
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
        $context->more('+ from somebody', $node->at, self::editor());
    }

    public function schema(): array
    {
        return Json::text();
    }

    protected function slot(): Quoted
    {
        return new Quoted;
    }

    private static function editor(): Editor
    {
        return Editor::line('Name or address, or a part of it', 200, mayBeEmpty: true);
    }
}
