<?php

declare(strict_types=1);

namespace VividLedger\Shape;

/** A place in a sentence, read in both directions. Each sort of place is one file, beside the concept it stands for. */
interface Slot
{
    /**
     * @param  mixed  $json  what a rule file has at the place
     * @param  array<mixed>  $around  the object the place is in
     * @return ?string null when it has no words
     */
    public function print(mixed $json, Scope $scope, array $around): ?string;

    /**
     * Every way to understand what stands at a place of a text.
     *
     * @param  int  $at  in bytes
     * @param  array<mixed>  $around  what was read of the object so far
     * @return list<Parsed>
     */
    public function parse(Typed $typed, int $at, Scope $scope, array $around): array;

    /** @return array<string, mixed> what a rule file may have at the place, as JSON Schema */
    public function schema(): array;
}
