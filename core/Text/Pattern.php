<?php

declare(strict_types=1);

namespace VividLedger\Text;

use VividLedger\Shape\Scope;

/**
 * A sentence with places in it, read in both directions: from an object of a rule file to words, and from words to the object.
 * A part is a literal text, a place ["key", slot], or an optional piece ["?", part, …]. The key "*" stands for keys of the
 * object that a slot covers by itself.
 */
final readonly class Pattern
{
    /**
     * @param  array<string, mixed>  $constants  what the object holds besides
     * @param  list<mixed>  $parts
     */
    public function __construct(private array $constants, private array $parts)
    {
    }

    /** @param  array<mixed>  $json */
    public function print(array $json, Scope $scope): ?string
    {
        foreach ($this->constants as $key => $value) {
            if (($json[$key] ?? null) !== $value) {
                return null;
            }
        }
        $covered = $this->constants;
        $text = $this->printed($this->parts, $json, $scope, $covered);

        // What the pattern has no place for would be lost.
        return $text === null || array_diff_key(
            array_filter($json, static fn (mixed $value): bool => $value !== null),
            $covered,
        ) !== [] ? null : trim((string) preg_replace('/ +/', ' ', $text));
    }

    /** @return ?array<string, mixed> */
    public function parse(Cursor $cursor, Scope $scope): ?array
    {
        $start = $cursor->at;
        $json = $this->parsed($this->parts, $cursor, $scope, $this->constants);
        if ($json === null) {
            $cursor->at = $start;
        }

        return $json;
    }

    /**
     * @param  list<mixed>  $parts
     * @param  array<mixed>  $json
     * @param  array<string, mixed>  $covered
     */
    private function printed(array $parts, array $json, Scope $scope, array &$covered): ?string
    {
        $text = '';
        foreach ($parts as $part) {
            if (is_string($part)) {
                $text .= $part;
            } elseif (is_array($part) && $part[0] === '?') {
                $had = $covered;
                $piece = $this->isThere($part, $json) ? $this->printed(array_values(array_slice($part, 1)), $json, $scope, $covered) : null;
                $covered = $piece === null ? $had : $covered;
                $text .= $piece ?? '';
            } elseif (is_array($part) && is_string($part[0]) && $part[1] instanceof Slot) {
                $words = $part[1]->print($part[0] === '*' ? $json : ($json[$part[0]] ?? null), $scope, $json);
                if ($words === null) {
                    return null;
                }
                $covered += $part[0] === '*' && $part[1] instanceof Covers ? array_fill_keys($part[1]->keys(), true) : [$part[0] => true];
                $text .= $words;
            }
        }

        return $text;
    }

    /**
     * An optional piece is there when the first of its places has something in it.
     *
     * @param  array<mixed>  $piece
     * @param  array<mixed>  $json
     */
    private function isThere(array $piece, array $json): bool
    {
        foreach ($piece as $part) {
            if (is_array($part) && is_string($part[0]) && $part[0] !== '?') {
                return $part[0] === '*' || (($json[$part[0]] ?? null) !== null);
            }
        }

        return false;
    }

    /**
     * @param  list<mixed>  $parts
     * @param  array<string, mixed>  $json
     * @return ?array<string, mixed>
     */
    private function parsed(array $parts, Cursor $cursor, Scope $scope, array $json): ?array
    {
        foreach ($parts as $part) {
            if (is_string($part)) {
                if (! $cursor->words($part)) {
                    return null;
                }
            } elseif (is_array($part) && $part[0] === '?') {
                $start = $cursor->at;
                $more = $this->parsed(array_values(array_slice($part, 1)), $cursor, $scope, $json);
                if ($more === null) {
                    $cursor->at = $start;
                } else {
                    $json = $more;
                }
            } elseif (is_array($part) && is_string($part[0]) && $part[1] instanceof Slot) {
                $read = $part[1]->parse($cursor, $scope, $json);
                if ($read === null) {
                    return null;
                }
                $value = $read[0];
                $json = $part[0] === '*' ? $json + self::keyed($value) : [...$json, $part[0] => $value];
            }
        }

        return $json;
    }

    /** @return array<string, mixed> */
    private static function keyed(mixed $value): array
    {
        $keyed = [];
        foreach (is_array($value) ? $value : [] as $key => $each) {
            $keyed[(string) $key] = $each;
        }

        return $keyed;
    }
}
