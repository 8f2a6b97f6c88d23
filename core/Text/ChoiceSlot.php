<?php

declare(strict_types=1);

namespace VividLedger\Text;

use Closure;
use VividLedger\Shape\Scope;

/**
 * One of several patterns: the first that has words for an object, and the one that reads furthest. Made when first used, as patterns can
 * contain each other.
 */
final class ChoiceSlot implements Slot
{
    /** @var ?list<Pattern> */
    private ?array $made = null;

    /** @param  Closure(): list<Pattern>  $patterns */
    public function __construct(private readonly Closure $patterns)
    {
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        if (! is_array($json)) {
            return null;
        }
        foreach ($this->patterns() as $pattern) {
            $text = $pattern->print($json, $scope);
            if ($text !== null) {
                return $text;
            }
        }

        return null;
    }

    public function parse(Cursor $cursor, Scope $scope, array $around): ?array
    {
        $start = $cursor->at;
        $best = null;
        $end = $start;
        foreach ($this->patterns() as $pattern) {
            $cursor->at = $start;
            $json = $pattern->parse($cursor, $scope);
            if ($json !== null && $cursor->at > $end) {
                [$best, $end] = [$json, $cursor->at];
            }
        }
        $cursor->at = $best === null ? $start : $end;

        return $best === null ? null : [$best];
    }

    /** @return list<Pattern> */
    private function patterns(): array
    {
        return $this->made ??= ($this->patterns)();
    }
}
