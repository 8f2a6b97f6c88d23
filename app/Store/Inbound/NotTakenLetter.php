<?php

declare(strict_types=1);

namespace App\Store\Inbound;

use App\Store\DomainError;
use App\Store\SignOffs\SignOffLink;
use VividLedger\Template\RichText;
use VividLedger\Words\Words;

/** Says that an answer by mail was not taken, why, and how to answer. */
final readonly class NotTakenLetter
{
    private const QUOTED = 300;

    /**
     * @param  string  $about  what was to be signed off
     * @param  string  $said  what they wrote
     * @param  bool  $isOpen  whether they can answer still
     */
    public function __construct(private string $about, private DomainError $why, private string $said, private bool $isOpen)
    {
    }

    public function html(): string
    {
        $text = static fn (string $plain): string => htmlspecialchars($plain, ENT_QUOTES | ENT_SUBSTITUTE);
        $said = mb_substr(trim($this->said), 0, self::QUOTED);

        return "<p><strong>{$text($this->about)}</strong></p>"
            .'<p>'.$text(Words::say('Your answer was not taken, and nothing has changed by it. {why}',
                why: $this->why->getMessage())).'</p>'
            .($said === '' ? '' : '<blockquote>'.nl2br($text($said), false).'</blockquote>')
            .($this->isOpen ? '<p><a href="'.SignOffLink::MARK.'">'.$text(Words::say('Look at it and decide')).'</a></p><p>'
                .$text(Words::say('Or answer this letter with “yes” or “no” alone, and behind a no the reason.')).'</p>' : '');
    }

    public function text(): string
    {
        $address = rtrim((string) config('app.url'), '/').SignOffLink::MARK;

        return str_replace(' ('.SignOffLink::MARK.')', ": {$address}", RichText::plain($this->html()));
    }
}
