<?php

declare(strict_types=1);

namespace App\Work\Timing;

use Closure;
use Illuminate\Database\Query\Builder;
use VividLedger\Rule\Rule;

/** Finds what time sets off, for one kind of trigger. Finding takes no locks, so that a long search holds up nobody. */
interface Finds
{
    /**
     * @param  int  $cursor  only what comes behind it
     * @return array<int, array{int, string}> record and occasion, by what the cursor counts; a chunk of them, in order
     */
    public function between(Rule $rule, \DateTimeImmutable $after, \DateTimeImmutable $until, int $cursor, int $chunk): array;

    /**
     * Records that match a rule as it is put in force, and whose occasion has come already.
     *
     * @param  Closure(): Builder  $matching  the records that meet its conditions, as "t"
     * @return ?list<array{int, string}> record and occasion, in order; null for every record that meets the conditions
     */
    public function existing(Rule $rule, \DateTimeImmutable $now, Closure $matching): ?array;

    /** When there may be something to find next; null when there is nothing as things stand. */
    public function next(Rule $rule, \DateTimeImmutable $after): ?\DateTimeImmutable;
}
