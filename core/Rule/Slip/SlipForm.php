<?php

declare(strict_types=1);

namespace VividLedger\Rule\Slip;

use VividLedger\Rule\Letter\Letter;
use VividLedger\Slip\Question;

/** What a slip shows and asks. */
final readonly class SlipForm
{
    /**
     * @param  list<Question>  $questions
     * @param  list<mixed>  $asks  the questions as a rule file writes them: a slip that was sent goes on asking those
     * @param  string  $name  under which it is kept in Setup; empty where the line writes it
     */
    public function __construct(public Letter $letter, public array $questions, public array $asks, public string $name)
    {
    }
}
