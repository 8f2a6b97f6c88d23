<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

use VividLedger\Facts\View;
use VividLedger\House\Person;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;

/** Whom a step of a route asks. Each kind is one file with its meaning and its wording. */
interface Approvers
{
    public static function kind(): string;

    /** How it is written, printed and said. */
    public static function shape(): Shape;

    /** As offered: "so many levels up". */
    public static function label(): string;

    /** Reads it from a rule file and words it; null when unfinished. */
    public static function read(Context $context, Node $node): ?self;

    /** @return list<Person> in the order they are asked; none when nobody is found */
    public function people(View $view): array;

    /** How many it asks at most; null when that depends on the record. */
    public function most(): ?int;

    /** Whether they are found by looking at who manages whom, so that a new manager is asked in the place of the old one. */
    public function followsTree(): bool;
}
