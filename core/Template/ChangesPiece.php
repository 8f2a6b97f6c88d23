<?php

declare(strict_types=1);

namespace VividLedger\Template;

use VividLedger\Facts\View;
use VividLedger\Record\Display;
use VividLedger\Schema\Schema;

/** What the change was: each changed field on a line of its own, with its old and new value in words. */
final readonly class ChangesPiece implements Piece
{
    public const NAME = 'changes';

    public function __construct(private Schema $schema)
    {
    }

    public function name(): string
    {
        return self::NAME;
    }

    public function label(): string
    {
        return 'What changed';
    }

    public function text(View $view, Display $display, string $number): string
    {
        $change = $view->change?->alteration();
        $type = $change === null ? null : $this->schema->type($change->type);
        if ($change === null || $type === null) {
            return '';
        }
        $lines = [];
        foreach ($change->fields as $name => [$before, $after]) {
            $field = $type->field($name);
            // An empty tick box is no news of a record that begins.
            if ($field !== null && ! $field->system && ! ($change->isNew && ($after === null || $after === false))) {
                $view->tellsField($change->type, $change->id, $name);
                $lines[] = $change->isNew ? "{$field->label}: {$display->of($field, $after)}"
                    : "{$field->label}: {$display->of($field, $before)} → {$display->of($field, $after)}";
            }
        }

        return implode("\n", $lines);
    }

    public function joint(): string
    {
        return ', ';
    }

    public function isMissing(View $view): bool
    {
        return ($view->change?->alteration()->fields ?? []) === [];
    }
}
