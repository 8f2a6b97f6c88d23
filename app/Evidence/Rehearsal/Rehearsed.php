<?php

declare(strict_types=1);

namespace App\Evidence\Rehearsal;

use VividLedger\Rehearse\Played;
use VividLedger\Rehearse\Script;

/** A rehearsal that was played: with what was supposed, and without. */
final readonly class Rehearsed
{
    /**
     * @param  ?Played  $without  null when nothing was supposed
     * @param  string  $pick  how the record was found: chosen, matched, nearly or made_up
     */
    public function __construct(
        public Script $script,
        public Played $played,
        public ?Played $without,
        public string $pick,
        public bool $withOthers,
    ) {
    }
}
