<?php

declare(strict_types=1);

namespace VividLedger\Shape;

use VividLedger\Words\Words;

/** What one reading of a file asked for, place by place: what stands there besides says nothing, and is told. */
final class KeyTracker
{
    /** @var array<string, array<string, true>> keys by the place of their object (a JSON Pointer) */
    private array $asked = [];

    public function asked(string $at, string $key): void
    {
        $this->asked[$at][$key] = true;
    }

    /**
     * Keys that nobody asked for. Where something else is wrong at a place, the reading may have ended before it asked for all
     * that can stand there, so nothing is said of it yet.
     *
     * @param  list<Problem>  $problems  found so far
     * @return list<Problem>
     */
    public function unknown(mixed $raw, array $problems, string $at = ''): array
    {
        if (! is_array($raw)) {
            return [];
        }
        $found = [];
        $isList = array_is_list($raw);
        $isSpoilt = array_filter(
            $problems,
            static fn (Problem $problem): bool => $problem->at === $at || ($at !== '' && str_starts_with($problem->at, "{$at}/")),
        ) !== [];
        foreach ($raw as $key => $value) {
            $place = "{$at}/".str_replace(['~', '/'], ['~0', '~1'], (string) $key);
            if (! $isList && ! $isSpoilt && isset($this->asked[$at]) && ! isset($this->asked[$at][(string) $key])) {
                $found[] = new Problem(
                    $place,
                    'unknown_key',
                    Words::say('‘{key}’ says nothing here. Take it away, or look how it is spelt.', key: $key),
                );
            } elseif ($isList || isset($this->asked[$at][(string) $key])) {
                array_push($found, ...$this->unknown($value, $problems, $place));
            }
        }

        return $found;
    }
}
