<?php

declare(strict_types=1);

namespace VividLedger\Template;

use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Gap;
use VividLedger\Shape\Json;
use VividLedger\Shape\Node;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Shape\WordedAs;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** A text with merged fields: "Look at {number}". */
final readonly class TemplateText extends WordedAs
{
    /**
     * @param  string  $label  what the text is called
     * @param  bool  $isLong  whether it has several lines
     * @param  ?int  $most  characters; null for as many as the field takes
     * @param  ?int  $shown  characters that the sentence shows of it; null for all
     */
    public function __construct(
        private Gap $gap,
        private string $label = 'Text',
        private bool $isLong = false,
        private ?int $most = null,
        private ?int $shown = null,
    ) {
    }

    public function read(Context $context, Node $node, Filled $around): ?Template
    {
        $text = trim($node->text() ?? '');
        if ($text === '') {
            return $context->gap($this->gap->text, $node->at, $this->editor(), 'missing', $this->gap->message);
        }
        $said = $this->shown === null ? $text : mb_strimwidth((string) preg_replace('/\s+/u', ' ', $text), 0, $this->shown, '…');
        $context->word("“{$said}”", WordRole::Value, $node->at, $this->editor());

        return $this->most !== null && mb_strlen($text) > $this->most
            ? $context->problem($node->at, 'too_long', Words::say('This has at most {most} characters.', most: $this->most))
            : Template::read($context, $text, $node->at);
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
        if ($this->gap->more !== '') {
            $context->more($this->gap->more, $node->at, $this->editor());
        }
    }

    public function schema(): array
    {
        // What need not be there may be empty.
        return Json::text($this->most, $this->gap->more === '' ? 1 : 0);
    }

    private function editor(): Editor
    {
        return Editor::template($this->label, $this->most ?? ($this->isLong ? 5000 : 200), $this->isLong, $this->gap->more !== '');
    }

    protected function slot(): Quoted
    {
        return new Quoted;
    }
}
