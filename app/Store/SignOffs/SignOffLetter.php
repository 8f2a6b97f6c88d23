<?php

declare(strict_types=1);

namespace App\Store\SignOffs;

use App\Models\SignOffs\StoredSignOff;
use VividLedger\Template\RichText;
use VividLedger\Words\Words;

/** The letter to somebody whose sign-off is wanted: the case, and two ways to answer. */
final readonly class SignOffLetter
{
    /**
     * @param  string  $why  what they are to know
     * @param  list<array{label: string, before: string, after: string}>  $changed  what the change was that asked for it
     * @param  bool  $isNew  whether it made the record, so that there is nothing before it
     */
    public function __construct(
        private StoredSignOff $kept,
        private string $about,
        private string $why,
        private array $changed,
        private bool $isNew,
    ) {
    }

    public function html(): string
    {
        $text = static fn (string $plain): string => htmlspecialchars($plain, ENT_QUOTES | ENT_SUBSTITUTE);
        $before = fn (array $one): string => $this->isNew ? '' : "<td>{$text($one['before'])}</td>";
        $rows = array_map(
            static fn (array $one): string => "<tr><th>{$text($one['label'])}</th>{$before($one)}<td>{$text($one['after'])}</td></tr>",
            $this->changed,
        );
        $head = $this->isNew ? '' : "<tr><th></th><th>{$text(Words::say('Before'))}</th><th>{$text(Words::say('Now'))}</th></tr>";
        $who = $this->kept->asker === null ? Words::say('A rule') : $this->kept->asker->name;
        $asks = Words::say('{who} asks for it, by the rule “{rule}”.', who: $who, rule: $this->kept->rule->name ?? '');

        return "<p><strong>{$text($this->about)}</strong></p>"
            .($this->why === '' ? '' : "<p>{$text($this->why)}</p>")
            ."<p>{$text($asks)}</p>"
            .($rows === [] ? '' : '<table>'.$head.implode('', $rows).'</table>')
            .'<p><a href="'.SignOffLink::MARK.'">'.$text(Words::say('Look at it and decide')).'</a></p>'
            .'<p>'.$text(Words::say('Or answer this letter: “yes” or “no” as the first word, and behind a no the reason.')).'</p>';
    }

    public function text(): string
    {
        $address = rtrim((string) config('app.url'), '/').SignOffLink::MARK;

        return str_replace(' ('.SignOffLink::MARK.')', ": {$address}", RichText::plain($this->html()));
    }
}
