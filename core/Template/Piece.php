<?php

declare(strict_types=1);

namespace VividLedger\Template;

use VividLedger\Facts\View;
use VividLedger\Record\Display;

/** Something that a text merges. Each kind is one file. */
interface Piece
{
    /** How a text names it, between braces or in a chip: "customer.name". */
    public function name(): string;

    public function label(): string;

    /** What stands in its place, with its lines kept; empty when there is nothing to say. */
    public function text(View $view, Display $display, string $number): string;

    /** What stands between its lines where all has to stand on one. */
    public function joint(): string;

    /** Whether it leaves a hole for a record. */
    public function isMissing(View $view): bool;
}
