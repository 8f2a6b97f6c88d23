<?php

declare(strict_types=1);

namespace VividLedger\Facts;

use VividLedger\House\Calendars;

/**
 * What the engine may ask about the world besides the change itself: seven ports and the moment. Production answers from the
 * database inside the transaction of the save; tests and rehearsals answer from memory, explanations as of a moment.
 */
interface Facts extends Calendars, GuardFacts, PeopleFacts, RecordFacts, SignOffFacts, SlipFacts, TaskFacts
{
    public function now(): \DateTimeImmutable;
}
