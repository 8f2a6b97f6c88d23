<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use Closure;
use VividLedger\Facts\View;

/** Holds when at least one part holds; without parts it never holds. */
final readonly class Any extends Group
{
    public static function wording(): string
    {
        return 'any of';
    }

    public function compile(): Closure
    {
        $parts = $this->compiledParts();

        return static function (View $view) use ($parts): bool {
            foreach ($parts as $part) {
                if ($part($view)) {
                    return true;
                }
            }

            return false;
        };
    }

    public function query(QueryWriter $writer): mixed
    {
        return $writer->any($this->queriedParts($writer));
    }

    public function truth(array $truths): ?bool
    {
        return in_array(true, $truths, true) ? true : (in_array(null, $truths, true) ? null : false);
    }
}
