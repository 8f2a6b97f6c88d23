<?php

declare(strict_types=1);

namespace App\Store;

use VividLedger\Record\CauseKind;

/** Who makes a change, and by which way it came in. */
final readonly class Actor
{
    public function __construct(
        public ?int $personId,
        public CauseKind $via = CauseKind::Person,
    ) {
    }
}
