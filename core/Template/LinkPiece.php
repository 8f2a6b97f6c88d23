<?php

declare(strict_types=1);

namespace VividLedger\Template;

use VividLedger\Facts\View;
use VividLedger\Record\Display;

/**
 * The way to the record. Inside the application an address begins at its root; what carries a text outside puts its own before an address
 * in brackets, and before that of a link.
 */
final readonly class LinkPiece implements Piece
{
    public function name(): string
    {
        return 'link';
    }

    public function label(): string
    {
        return 'Link to this record';
    }

    public function text(View $view, Display $display, string $number): string
    {
        return "({$this->address($view)})";
    }

    public function html(View $view, string $number): string
    {
        return '<a href="'.htmlspecialchars($this->address($view)).'">'.htmlspecialchars($number).'</a>';
    }

    public function joint(): string
    {
        return ' ';
    }

    public function isMissing(View $view): bool
    {
        return false;
    }

    private function address(View $view): string
    {
        return "/records/{$view->record->type}/{$view->record->id}";
    }
}
