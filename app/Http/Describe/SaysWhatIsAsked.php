<?php

declare(strict_types=1);

namespace App\Http\Describe;

/** A request whose parameters do not explain themselves by their names. */
interface SaysWhatIsAsked
{
    /** @return array<string, string> a sentence by the name of a parameter */
    public function meant(): array;
}
