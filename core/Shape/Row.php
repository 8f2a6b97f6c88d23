<?php

declare(strict_types=1);

namespace VividLedger\Shape;

/** One row of a rule page: a word in the margin, and a sentence. */
final class Row
{
    /** @var list<Word> */
    public array $words = [];

    /** Whether the line is switched off. */
    public bool $off = false;

    /** Whether it is the heading of a case, which sets in or out by standing within another. */
    public bool $heading = false;

    /** When the line is done, as a word that can be changed; null where it is no line. */
    public ?Word $when = null;

    /** How many seconds after the firing the line comes, roughly; null when that is not known beforehand. */
    public ?int $after = null;

    /** When the line is done, as read aloud; empty for at once. */
    public string $said = '';

    /**
     * @param  Part  $part  what the row states
     * @param  string  $at  the place in the rule file the row stands for (a JSON Pointer)
     * @param  string  $margin  empty where the row continues the one above
     * @param  int  $depth  of nesting, for conditions
     * @param  int  $indent  how many cases it stands in
     */
    public function __construct(
        public readonly Part $part,
        public readonly string $at,
        public readonly string $margin = '',
        public readonly int $depth = 0,
        public readonly int $indent = 0,
    ) {
    }

    public function text(): string
    {
        $said = array_filter($this->words, static fn (Word $word): bool => $word->role !== WordRole::More);
        $text = implode(' ', array_map(static fn (Word $word): string => $word->text, $said));

        return str_replace([' ,', ' .', ' ;', ' :', ' ’s'], [',', '.', ';', ':', '’s'], $text);
    }
}
