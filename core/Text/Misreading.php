<?php

declare(strict_types=1);

namespace VividLedger\Text;

use VividLedger\Words\Words;

/** Something in a text that was not understood, at its word. */
final readonly class Misreading
{
    /**
     * @param  int  $line  of the text, from 1
     * @param  int  $position  in the line, in characters from 0
     * @param  string  $word  that stands there; empty at the end
     * @param  list<string>  $expected  what could stand there, the likeliest first
     * @param  list<string>  $offers  what of that can be typed as it is
     * @param  ?string  $meant  what the word is probably meant to be, when it is nearly spelt so
     * @param  list<string>  $meanings  what it can mean, when that is more than one thing
     */
    public function __construct(
        public int $line,
        public int $position,
        public string $word,
        public array $expected,
        public array $offers,
        public ?string $meant = null,
        public array $meanings = [],
    ) {
    }

    public function message(): string
    {
        if ($this->meanings !== []) {
            $all = implode('”, or “', $this->meanings);

            return Words::say('That can mean several things: “{all}”. Write the one you mean.', all: $all);
        }
        $what = $this->word === '' ? Words::say('Something is missing at the end')
            : Words::say('‘{word}’ is not understood here', word: $this->word);
        if ($this->meant !== null) {
            return Words::say('{what}. Did you mean ‘{meant}’?', what: $what, meant: $this->meant);
        }
        // A sign by itself says nothing to whoever reads it.
        $words = array_filter($this->expected, static fn (string $one): bool => preg_match('/^[^’]*\p{L}{2}/u', $one) === 1);
        $best = array_slice($words, 0, 3);
        $last = array_pop($best);

        return $last === null ? "{$what}." : Words::say(
            '{what}. What could stand here: {words}.',
            what: $what,
            words: $best === [] ? $last : Words::say('{words} or {last}', words: implode(', ', $best), last: $last),
        );
    }
}
