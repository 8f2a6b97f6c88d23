<?php

declare(strict_types=1);

namespace VividLedger\Shape;

use VividLedger\House\Person;
use VividLedger\Schema\RecordType;

/** What a reading gathers: the rows of the page, its problems, and what can be chosen at the one place somebody asked about. */
final class ReadingResult
{
    /** @var list<Row> */
    public array $rows = [];

    /** How far the rows that are read next stand in: by one for each case they are in. */
    public int $indent = 0;

    /** @var list<Problem> */
    public array $problems = [];

    /** @var list<Offer> */
    public array $offers = [];

    /** @var list<Way> ways to fill in the form that was asked about */
    public array $ways = [];

    /** @var array<string, RecordType> records that a line makes, by the name later lines use */
    public array $made = [];

    /** @var array<string, Person> people named who have left the company, by the place where they are */
    public array $left = [];

    public readonly Waitables $waitables;

    /** @var \ArrayObject<string, mixed> what was looked up once */
    public readonly \ArrayObject $known;

    /** @var array<string, list<string>> answers to choose from, by question, of the slip at hand */
    public array $answers = [];

    /**
     * @param  ?Asked  $asked  the word whose choices are wanted
     * @param  bool  $isOfChange  whether there is a change that conditions can be about
     */
    public function __construct(public readonly ?Asked $asked = null, public readonly bool $isOfChange = true)
    {
        $this->known = new \ArrayObject;
        $this->waitables = new Waitables;
    }

    /** Gives what can be chosen with a word, where somebody has asked for it. */
    public function offer(Word $word): void
    {
        if ($word->editor !== null && $this->asked?->means($word) === true) {
            $this->offers = $word->editor->offers === null ? [] : ($word->editor->offers)();
            $this->ways = $word->editor->ways === null ? [] : ($word->editor->ways)();
        }
    }
}
