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

/** Words that something has to have: what is mentioned in a comment or a reply, the name or address of whoever wrote it. */
final readonly class WordsAbout extends WordedAs
{
    /**
     * @param  string  $asks  what the editor asks for
     * @param  string  $more  what is offered where nothing is asked for yet
     */
    public function __construct(private string $asks = 'Words in it', private string $more = '+ that mentions')
    {
    }

    public function read(Context $context, Node $node, Filled $around): string
    {
        $about = trim($node->text() ?? '');
        $context->word("“{$about}”", WordRole::Value, $node->at, Editor::line($this->asks, 200, mayBeEmpty: true));

        return $about;
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
        $context->more($this->more, $node->at, Editor::line($this->asks, 200, mayBeEmpty: true));
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
