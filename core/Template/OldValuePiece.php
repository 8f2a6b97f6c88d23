<?php

declare(strict_types=1);

namespace VividLedger\Template;

use VividLedger\Facts\View;
use VividLedger\Record\Display;
use VividLedger\Schema\Field;

/** The value that a field of the record had before the change; where the change left it alone, the value it has. */
final readonly class OldValuePiece implements Piece
{
    public const PREFIX = 'was.';

    public function __construct(private Field $field)
    {
    }

    public function name(): string
    {
        return self::PREFIX.$this->field->name;
    }

    public function label(): string
    {
        return "old {$this->field->label}";
    }

    public function text(View $view, Display $display, string $number): string
    {
        $view->tellsField($view->record->type, $view->record->id, $this->field->name);

        return $display->merged($this->field, $this->value($view));
    }

    public function joint(): string
    {
        return ' ';
    }

    public function isMissing(View $view): bool
    {
        return $this->value($view) === null;
    }

    private function value(View $view): string|int|bool|null
    {
        return $view->change === null ? $view->record->value($this->field->name) : $view->change->alteration()->before(
            $view->record,
            $this->field->name,
        );
    }
}
