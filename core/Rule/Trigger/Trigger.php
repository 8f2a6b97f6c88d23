<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Facts\Facts;
use VividLedger\Record\Change;
use VividLedger\Record\Record;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;

/** What makes a rule look at a change. Each trigger is one file with its meaning, its wording and its checks. */
interface Trigger
{
    public static function kind(): string;

    /** How it is written, printed and said. */
    public static function shape(): Shape;

    /** As offered: "is created or changed". */
    public static function label(): string;

    /** Reads it from a rule file and words it; null when unfinished. */
    public static function read(Context $context, Node $node): ?self;

    public function watch(): Watch;

    /** Whether the rule is judged on the changed record itself, and not on one related to it. */
    public function isOwn(): bool;

    /** Whether a change that it watches for starts the rule. */
    public function accepts(Change $change, Facts $facts): bool;

    /** Whether what it watches is all that it asks, so that accepts() need not be called for what an index found. */
    public function asksNoMore(): bool;

    /**
     * The records a rule is judged on when the change is one of another record; null when it is the changed record itself.
     *
     * @return ?list<Record>
     */
    public function subjects(Change $change, Facts $facts): ?array;

    /**
     * What names the occasion on which a change sets the rule off, where that is more than the change itself: a date that is
     * near already is one occasion however often the record is saved. One occasion fires a rule once.
     *
     * @return ?string null when the change itself is the occasion
     */
    public function occasionOf(Change $change, Facts $facts): ?string;

    /** The first change of a rehearsal that starts it. */
    public function opening(Proposal $proposal): Opening;

    /** What it waited for, in the past tense: "the ticket was to be created". */
    public function wanted(): string;
}
