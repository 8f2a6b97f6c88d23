<?php

declare(strict_types=1);

namespace VividLedger\Rehearse;

use VividLedger\Engine\Verdict;
use VividLedger\Facts\PencilledLine;
use VividLedger\Record\Record;

/** How a rehearsal went. */
final readonly class Played
{
    /**
     * @param  list<PaperEntry>  $entries
     * @param  list<PencilledLine>  $left  what still stands in pencil at the end
     * @param  ?Record  $before  the record as it was at the beginning; null when it did not exist
     * @param  ?Record  $after  the record as it is at the end; null when it was deleted
     * @param  ?Verdict  $why  what the rehearsed rule made of the opening
     * @param  bool  $goesOn  whether more would come than is shown
     * @param  list<PaperSlip>  $slips  that were sent
     * @param  list<PaperSignOff>  $signOffs  that were asked for
     */
    public function __construct(
        public array $entries,
        public array $left,
        public ?Record $before,
        public ?Record $after,
        public ?Verdict $why,
        public \DateTimeImmutable $from,
        public \DateTimeImmutable $until,
        public bool $goesOn,
        public array $slips = [],
        public array $signOffs = [],
    ) {
    }
}
