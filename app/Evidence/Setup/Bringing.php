<?php

declare(strict_types=1);

namespace App\Evidence\Setup;

/** How documents are brought in. */
final readonly class Bringing
{
    /**
     * @param  int  $by  in whose name
     * @param  bool  $isReal  whether it is meant, or only tried: then rules are read and not put in force
     * @param  bool  $despite  whether rules are put in force though proofs do not hold
     */
    public function __construct(public int $by, public bool $isReal, public bool $despite = false)
    {
    }
}
