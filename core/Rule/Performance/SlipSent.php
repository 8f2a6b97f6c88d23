<?php

declare(strict_types=1);

namespace VividLedger\Rule\Performance;

use VividLedger\Message\Channel;
use VividLedger\Record\Record;
use VividLedger\Rule\Slip\SlipForm;
use VividLedger\Slip\SlipMoved;

/** A slip that a line sent, as it began. */
final readonly class SlipSent
{
    /**
     * @param  int  $place  of the line in its page, from 0: its plan is read there
     * @param  string  $key  by which later lines wait for it; empty for none
     * @param  string  $html  what whoever answers reads, with everything merged
     * @param  Channel  $channel  by which it goes
     * @param  ?\DateTimeImmutable  $wakes  when it has to be tended
     * @param  list<string>  $tells  what it shows, each a type, the id of a record, and a field of it
     */
    public function __construct(
        public Record $record,
        public SlipMoved $moved,
        public SlipForm $form,
        public int $place,
        public string $key,
        public string $subject,
        public string $html,
        public Channel $channel,
        public ?\DateTimeImmutable $wakes = null,
        public array $tells = [],
    ) {
    }
}
