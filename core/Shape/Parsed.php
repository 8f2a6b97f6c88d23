<?php

declare(strict_types=1);

namespace VividLedger\Shape;

/** One way to understand a piece of a text. */
final readonly class Parsed
{
    /**
     * @param  mixed  $json  as a rule file writes it
     * @param  int  $end  the place behind the piece, in bytes
     * @param  int  $cost  how far what is typed is from what is printed; 0 for the very words
     */
    public function __construct(
        public mixed $json,
        public int $end,
        public int $cost = 0,
    ) {
    }

    public function costlier(int $by): self
    {
        return new self($this->json, $this->end, $this->cost + $by);
    }

    public function as(mixed $json): self
    {
        return new self($json, $this->end, $this->cost);
    }

    /**
     * Of readings that say the same and end at the same place only the nearest.
     *
     * @param  list<self>  $all
     * @return list<self>
     */
    public static function distinct(array $all): array
    {
        if (count($all) < 2) {
            return $all;
        }
        $best = [];
        foreach ($all as $one) {
            $key = $one->end.' '.json_encode(self::sorted($one->json));
            if (! isset($best[$key]) || $one->cost < $best[$key]->cost) {
                $best[$key] = $one;
            }
        }

        return array_values($best);
    }

    /** The order of keys says nothing, and neither does a key that holds nothing. */
    public static function sorted(mixed $json): mixed
    {
        if (! is_array($json)) {
            return $json;
        }
        $sorted = array_map(self::sorted(...), $json);
        if (! array_is_list($sorted)) {
            $sorted = array_filter(
                $sorted,
                static fn (mixed $value, int|string $key): bool => $key !== '' && $value !== null,
                ARRAY_FILTER_USE_BOTH,
            );
            ksort($sorted);
        }

        return $sorted;
    }
}
