<?php

declare(strict_types=1);

namespace VividLedger\Rule\Cases;

/** What a heading is among cases: the first, one more, the last, or the end of them. */
enum CasePart
{
    case First;
    case Further;
    case Last;
    case End;

    /** Whether lines below it are a case. */
    public function opens(): bool
    {
        return $this !== self::End;
    }
}
