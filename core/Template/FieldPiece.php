<?php

declare(strict_types=1);

namespace VividLedger\Template;

use VividLedger\Facts\View;
use VividLedger\Record\Display;
use VividLedger\Schema\Path;

/** The value of a field of the record, or of one it refers to. */
final readonly class FieldPiece implements Piece
{
    public function __construct(private Path $path)
    {
    }

    public function name(): string
    {
        return $this->path->name();
    }

    public function label(): string
    {
        return $this->path->label();
    }

    public function text(View $view, Display $display, string $number): string
    {
        $view->tells($this->path);

        return $display->merged($this->path->field, $view->value($this->path));
    }

    public function joint(): string
    {
        return ' ';
    }

    public function isMissing(View $view): bool
    {
        return $view->value($this->path) === null;
    }
}
