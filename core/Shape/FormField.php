<?php

declare(strict_types=1);

namespace VividLedger\Shape;

/** A small field of a form: a time, a number, a choice, a tick, or a time of day. */
final readonly class FormField
{
    /**
     * @param  string  $sort  time, number, choice, tick or clock
     * @param  string  $key  in the object; empty where it has keys of its own
     * @param  string  $label  said before it
     * @param  string  $behind  and behind it
     * @param  mixed  $starts  what it shows to begin with
     * @param  bool  $isNeeded  whether it stands in the file also where it says what is usual
     * @param  list<Offer>  $options
     * @param  ?array{string, string}  $sides  words for after and before; null where it only lies after
     * @param  ?string  $sidesWith  key of the choice that has to be made for it to lie before
     * @param  list<string>  $units  none for all
     */
    private function __construct(
        public string $sort,
        public string $key,
        public string $label,
        public string $behind = '',
        public mixed $starts = null,
        public bool $isNeeded = true,
        public ?int $least = null,
        public ?int $most = null,
        public array $options = [],
        public ?array $sides = null,
        public ?string $sidesWith = null,
        public bool $hasTime = false,
        public bool $hasClock = false,
        public array $units = [],
    ) {
    }

    /**
     * A length of time, and what can stand behind it.
     *
     * @param  array<string, mixed>  $starts
     * @param  ?array{string, string}  $sides
     * @param  list<string>  $units
     */
    public static function time(
        array $starts,
        string $key = '',
        string $label = '',
        ?array $sides = null,
        ?string $sidesWith = null,
        int $least = 0,
        bool $hasTime = false,
        bool $hasClock = false,
        array $units = [],
        bool $isNeeded = true,
    ): self {
        return new self(
            'time', $key, $label, starts: $starts, isNeeded: $isNeeded, least: $least, sides: $sides, sidesWith: $sidesWith,
            hasTime: $hasTime, hasClock: $hasClock, units: $units,
        );
    }

    public static function number(
        string $key,
        string $label,
        string $behind,
        int $starts,
        int $least,
        int $most,
        bool $isNeeded = true,
    ): self {
        return new self(
            sort: 'number', key: $key, label: $label, behind: $behind, starts: $starts, isNeeded: $isNeeded, least: $least, most: $most,
        );
    }

    /** @param  list<Offer>  $options  one whose value is null says what is usual, and is left out */
    public static function choice(string $key, string $label, array $options, mixed $starts = null): self
    {
        return new self('choice', $key, $label, starts: $starts, options: $options);
    }

    public static function tick(string $key, string $label): self
    {
        return new self('tick', $key, $label, isNeeded: false);
    }

    public static function clock(string $key, string $label, string $starts): self
    {
        return new self('clock', $key, $label, starts: $starts);
    }
}
