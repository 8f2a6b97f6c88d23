<?php

declare(strict_types=1);

namespace VividLedger\Template;

use VividLedger\Facts\View;
use VividLedger\Record\Display;

/** The number of the record: "T-0042". */
final readonly class NumberPiece implements Piece
{
    public const NAME = 'number';

    public function name(): string
    {
        return self::NAME;
    }

    public function label(): string
    {
        return 'Number';
    }

    public function text(View $view, Display $display, string $number): string
    {
        return $number;
    }

    public function joint(): string
    {
        return ' ';
    }

    public function isMissing(View $view): bool
    {
        return false;
    }
}
