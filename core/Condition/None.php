<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use Closure;
use VividLedger\Facts\View;

/** Holds when no part holds. */
final readonly class None extends Group
{
    public static function wording(): string
    {
        return 'none of';
    }

    public function compile(): Closure
    {
        $any = (new Any($this->parts))->compile();

        return static fn (View $view): bool => ! $any($view);
    }

    public function query(QueryWriter $writer): mixed
    {
        return $writer->none($this->queriedParts($writer));
    }

    public function truth(array $truths): ?bool
    {
        return in_array(true, $truths, true) ? false : (in_array(null, $truths, true) ? null : true);
    }
}
