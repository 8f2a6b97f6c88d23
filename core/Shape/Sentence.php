<?php

declare(strict_types=1);

namespace VividLedger\Shape;

/**
 * A sentence with places in it: "Give {to} a[ {priority}] task {title}". In square brackets stands what can be left out, in
 * round ones what can be said in one of several ways: "(remind|ping) {to}".
 */
final readonly class Sentence
{
    /** @param  list<string|Place|Piece>  $parts */
    private function __construct(public array $parts)
    {
    }

    /** Taken apart once: kinds say the same at every line that is read. */
    public static function of(string $text): self
    {
        return Kinds::once("sentence: {$text}", static function () use ($text): self {
            $tokens = preg_split('/(\{\w*\}|(?<!\\\\)[\[\]()|])/', $text, -1, PREG_SPLIT_DELIM_CAPTURE | PREG_SPLIT_NO_EMPTY) ?: [];
            $at = 0;
            $sentence = self::read($tokens, $at);

            return $at === count($tokens) ? $sentence : throw new \LogicException("This sentence is not sound: {$text}");
        });
    }

    /**
     * @param  array<string, Slot>  $slots
     * @param  array<string, mixed>  $json  what the object holds so far
     * @return list<Parsed>
     */
    public function parse(Typed $typed, int $at, Scope $scope, array $slots, array $json, int $cost): array
    {
        return $this->canBeIn($typed) ? $this->from(0, $typed, $at, $scope, $slots, $json, $cost) : [];
    }

    /**
     * The same behind its first place.
     *
     * @param  array<string, Slot>  $slots
     * @param  array<string, mixed>  $json
     * @return list<Parsed>
     */
    public function behind(Typed $typed, int $at, Scope $scope, array $slots, array $json, int $cost): array
    {
        return $this->canBeIn($typed) ? $this->from(1, $typed, $at, $scope, $slots, $json, $cost) : [];
    }

    /** @return ?string the key of the place it begins with; null when it begins with words */
    public function first(): ?string
    {
        $first = $this->parts[0] ?? null;

        return $first instanceof Place ? $first->key : null;
    }

    /**
     * @param  array<string, Slot>  $slots
     * @param  array<mixed>  $json
     * @param  array<string, true>  $covered  the keys that the words stand for
     * @return ?string null when a place has no words
     */
    public function print(array $slots, array $json, Scope $scope, array &$covered): ?string
    {
        $text = '';
        foreach ($this->parts as $part) {
            if (is_string($part)) {
                $text = self::joined($text, $part);
            } elseif ($part instanceof Place) {
                $slot = $slots[$part->key];
                $spread = $slot instanceof MultiKeySlot;
                $words = $slot->print($spread ? $json : ($json[$part->key] ?? null), $scope, $json);
                if ($words === null) {
                    return null;
                }
                $covered += $spread ? array_fill_keys($slot->keys(), true) : [$part->key => true];
                $text = self::joined($text, $words);
            } else {
                $had = $covered;
                $piece = $part->way()->isSaidOf($slots, $json) ? $part->way()->print($slots, $json, $scope, $covered) : null;
                $covered = $piece === null ? $had : $covered;
                $text = self::joined($text, $piece ?? '');
            }
        }

        return $text;
    }

    /**
     * A piece that can be left out is said when the first of its places has something in it.
     *
     * @param  array<string, Slot>  $slots
     * @param  array<mixed>  $json
     */
    public function isSaidOf(array $slots, array $json): bool
    {
        foreach ($this->parts as $part) {
            if ($part instanceof Place) {
                $slot = $slots[$part->key];

                return $slot instanceof MultiKeySlot ? array_intersect_key($json, array_flip($slot->keys())) !== []
                    : ($json[$part->key] ?? null) !== null;
            }
        }

        return false;
    }

    /** What it says besides its places. */
    public function words(): string
    {
        return trim((string) preg_replace('/\s+/u', ' ', implode(' ', array_filter($this->parts, is_string(...)))));
    }

    /** @return array<string, bool> by the keys of its places, whether it can be left out */
    public function places(bool $isOptional = false): array
    {
        $places = [];
        foreach ($this->parts as $part) {
            if ($part instanceof Place) {
                $places[$part->key] = $isOptional;
            } elseif ($part instanceof Piece) {
                foreach ($part->ways as $way) {
                    $places += $way->places($isOptional || $part->isOptional || count($part->ways) > 1);
                }
            }
        }

        return $places;
    }

    /**
     * @param  array<string, Slot>  $slots
     * @param  array<string, mixed>  $json
     * @return list<Parsed>
     */
    private function from(int $nth, Typed $typed, int $at, Scope $scope, array $slots, array $json, int $cost): array
    {
        $part = $this->parts[$nth] ?? null;
        if ($part === null) {
            return [new Parsed($json, $at, $cost)];
        }
        if (is_string($part)) {
            $end = $typed->words($at, $part, min(1, $cost));

            return $end === null ? [] : $this->from($nth + 1, $typed, $end, $scope, $slots, $json, $cost);
        }
        $found = [];
        if ($part instanceof Place) {
            $slot = $slots[$part->key];
            foreach ($slot->parse($typed, $at, $scope, $json) as $one) {
                $read = $slot instanceof MultiKeySlot ? self::keyed($one->json) : [$part->key => $one->json];
                if (self::contradict($read, $json)) {
                    continue;
                }
                $next = $read + $json;
                array_push($found, ...$this->from($nth + 1, $typed, $one->end, $scope, $slots, $next, $cost + $one->cost));
            }

            return $found;
        }
        foreach ($part->ways as $way) {
            foreach ($way->from(0, $typed, $at, $scope, $slots, $json, $cost) as $one) {
                array_push($found, ...$this->from($nth + 1, $typed, $one->end, $scope, $slots, self::keyed($one->json), $one->cost));
            }
        }
        if ($part->isOptional) {
            array_push($found, ...$this->from($nth + 1, $typed, $at, $scope, $slots, $json, $cost));
        }

        return $found;
    }

    /** Whether the words that it cannot do without are in the text, wherever they stand. */
    private function canBeIn(Typed $typed): bool
    {
        if (! $typed->isHurried) {
            return true;
        }
        foreach ($this->parts as $part) {
            if ($part instanceof Place || ($part instanceof Piece && $part->isOptional)) {
                continue;
            }
            $ways = is_string($part) ? [$part] : array_map(static fn (self $way): mixed => $way->parts[0] ?? null, $part->ways);
            if (array_filter($ways, static fn (mixed $words): bool => ! is_string($words) || $typed->mentions($words)) === []) {
                return false;
            }
        }

        return true;
    }

    /**
     * What is said twice has to be the same.
     *
     * @param  array<string, mixed>  $one
     * @param  array<string, mixed>  $other
     */
    private static function contradict(array $one, array $other): bool
    {
        foreach ($one as $key => $value) {
            if ($key !== '' && is_scalar($value) && isset($other[$key]) && $other[$key] !== $value) {
                return true;
            }
        }

        return false;
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

    /** Places that say nothing leave no second gap, and none before a comma. */
    private static function joined(string $text, string $more): string
    {
        return $more !== '' && str_ends_with($text, ' ') && str_contains(' ,;:', $more[0]) ? rtrim($text, ' ').$more : $text.$more;
    }

    /** @param  list<string>  $tokens */
    private static function read(array $tokens, int &$at): self
    {
        $parts = [];
        for (; $at < count($tokens); $at++) {
            $token = $tokens[$at];
            if (in_array($token, [']', ')', '|'], true)) {
                break;
            }
            if ($token === '[' || $token === '(') {
                $ways = [];
                do {
                    $at++;
                    $ways[] = self::read($tokens, $at);
                } while (($tokens[$at] ?? '') === '|');
                $parts[] = new Piece($ways, $token === '[');
            } else {
                $parts[] = $token[0] === '{' ? new Place(substr($token, 1, -1)) : strtr($token, ['\\(' => '(', '\\)' => ')']);
            }
        }

        return new self($parts);
    }
}
