<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use Closure;
use VividLedger\Facts\View;

/** Holds when every part holds; without parts it always holds. */
final readonly class All extends Group
{
    public static function wording(): string
    {
        return 'all of';
    }

    public function compile(): Closure
    {
        $parts = $this->compiledParts();
        if (count($parts) === 1) {
            return $parts[0];
        }
        if (count($parts) === 2) {
            [$first, $second] = $parts;

            return static fn (View $view): bool => $first($view) && $second($view);
        }

        return static function (View $view) use ($parts): bool {
            foreach ($parts as $part) {
                if (! $part($view)) {
                    return false;
                }
            }

            return true;
        };
    }

    public function query(QueryWriter $writer): mixed
    {
        return $writer->all($this->queriedParts($writer));
    }

    public function truth(array $truths): ?bool
    {
        return in_array(false, $truths, true) ? false : (in_array(null, $truths, true) ? null : true);
    }
}
