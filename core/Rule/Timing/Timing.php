<?php

declare(strict_types=1);

namespace VividLedger\Rule\Timing;

use VividLedger\Condition\Condition;
use VividLedger\Facts\Awaited;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Way;

/** When a line is done, other than at once. Each kind is one file with its meaning, its wording and its checks. */
interface Timing
{
    public static function kind(): string;

    /** How it is written, printed and said. */
    public static function shape(): Shape;

    /** As offered: "after a while". */
    public static function label(): string;

    /**
     * Where people say one half of it before the line and the other behind: "every day remind the owner, up to 3 times".
     *
     * @return array{}|array{Shape, Shape}
     */
    public static function parted(): array;

    /** @return list<Way> how it is filled in for a line at a place; none where it makes no sense */
    public static function ways(Context $context, int $place): array;

    /** Reads it from a rule file; null when it cannot be, and the problem is noted. */
    public static function read(Context $context, Node $node): ?self;

    /** As the margin shows it: "+3 days". */
    public function margin(): string;

    /** As read aloud: "after 3 days". */
    public function said(): string;

    /** @return ?\DateTimeImmutable null while it waits for a date or for a task */
    public function due(Occasion $occasion): ?\DateTimeImmutable;

    /** Name of the record's own date field it hangs on; null for none. */
    public function hangsOn(): ?string;

    /** Key of the line whose tasks it waits for; null for none. */
    public function waitsFor(): ?string;

    /** What of the record itself it waits to become true; null for nothing. */
    public function becomes(): ?Condition;

    /** What the margin leaves out; empty when it says all. */
    public function note(): string;

    /**
     * The next time it is done, after the turn of the occasion was.
     *
     * @return ?array{int, ?\DateTimeImmutable} its turn, and when it falls due, which may not be known yet; null when that was the last
     */
    public function again(Occasion $occasion, \DateTimeImmutable $now): ?array;

    /** @return ?int seconds after the rule fired, roughly, where that is all it hangs on; null where nobody can say */
    public function seconds(): ?int;

    /** Whether what has become of the tasks that it waits for makes a turn of the line needless. */
    public function isNeedless(Awaited $tasks, int $turn = 1): bool;

    /** Whether the line is done again and again. */
    public function repeats(): bool;

    /** Whether nothing in it says how often at most, so that the rule has to say what ends it. */
    public function isEndless(): bool;
}
