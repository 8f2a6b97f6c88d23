<?php

declare(strict_types=1);

namespace VividLedger\Text;

/** Something in a text that was not understood, at its word. */
final readonly class Misreading
{
    /**
     * @param  int  $line  of the text, from 1
     * @param  int  $position  in the line, in characters from 0
     * @param  string  $word  that stands there; empty at the end
     * @param  list<string>  $expected  what could stand there
     * @param  list<string>  $offers  what of that can be typed as it is
     */
    public function __construct(
        public int $line,
        public int $position,
        public string $word,
        public array $expected,
        public array $offers,
    ) {
    }

    public function message(): string
    {
        $what = $this->word === '' ? 'Something is missing at the end' : "‘{$this->word}’ is not understood here";
        $expected = array_slice($this->expected, 0, 4);

        return $expected === [] ? "{$what}." : "{$what}. It could go on with ".implode(
            ', ',
            array_map(static fn (string $one): string => trim($one), $expected),
        ).(count($this->expected) > 4 ? ', …' : '').'.';
    }
}
