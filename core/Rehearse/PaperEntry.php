<?php

declare(strict_types=1);

namespace VividLedger\Rehearse;

use VividLedger\Explain\Told;
use VividLedger\Message\Message;

/** What the ledger would keep of one thing that happens in a rehearsal. */
final readonly class PaperEntry
{
    /**
     * @param  int  $number  on paper, from 1
     * @param  ?int  $cause  number of the entry that led to it; null for what came from outside
     * @param  list<Message>  $messages  that went out with it
     * @param  list<PaperTask>  $tasks  that were given with it
     * @param  bool  $isWhatIf  whether somebody supposed it
     */
    public function __construct(
        public int $number,
        public \DateTimeImmutable $at,
        public Told $told,
        public ?int $cause,
        public array $messages = [],
        public array $tasks = [],
        public bool $isWhatIf = false,
    ) {
    }
}
