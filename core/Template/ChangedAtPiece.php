<?php

declare(strict_types=1);

namespace VividLedger\Template;

use VividLedger\Facts\View;
use VividLedger\Record\Display;

/** When the change was made. */
final readonly class ChangedAtPiece implements Piece
{
    public const NAME = 'changed.at';

    public function name(): string
    {
        return self::NAME;
    }

    public function label(): string
    {
        return 'When it changed';
    }

    public function text(View $view, Display $display, string $number): string
    {
        return $view->change === null ? '' : $display->moment($view->change->alteration()->at);
    }

    public function joint(): string
    {
        return ' ';
    }

    public function isMissing(View $view): bool
    {
        return $view->change === null;
    }
}
