<?php

declare(strict_types=1);

namespace VividLedger\Shape;

/** A place in a typed text that goes on over what it finds: for what can only be understood in one way. */
final class Stepper
{
    public function __construct(private readonly Typed $typed, public int $at)
    {
    }

    public function words(string $literal): bool
    {
        $end = $this->typed->words($this->at, $literal);
        $this->at = $end ?? $this->at;

        return $end !== null;
    }

    /**
     * @template T
     *
     * @param  array<string, T>  $labels
     * @return ?array{T} what the longest label that stands here stands for
     */
    public function label(array $labels): ?array
    {
        $found = $this->typed->labels($this->at, $labels)[0] ?? null;
        $this->at = $found[1] ?? $this->at;

        return $found === null ? null : [$found[0]];
    }

    public function quoted(): ?string
    {
        $found = $this->typed->quoted($this->at);
        $this->at = $found[1] ?? $this->at;

        return $found[0] ?? null;
    }

    /** @return ?list<string> the groups of a pattern that stands here */
    public function pattern(string $pattern, string $expected): ?array
    {
        $found = $this->typed->pattern($this->at, $pattern, $expected);
        $this->at = $found[1] ?? $this->at;

        return $found[0] ?? null;
    }
}
