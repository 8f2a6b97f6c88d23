<?php

declare(strict_types=1);

namespace VividLedger\Template;

use VividLedger\Condition\MadeBy;
use VividLedger\Facts\View;
use VividLedger\Record\Display;

/** Who made the change: a person by name; else a rule, an import, the API. */
final readonly class ChangedByPiece implements Piece
{
    public const NAME = 'changed.by';

    public function name(): string
    {
        return self::NAME;
    }

    public function label(): string
    {
        return 'Who changed it';
    }

    public function text(View $view, Display $display, string $number): string
    {
        $change = $view->change?->alteration();
        $person = $change?->actor === null ? null : $view->facts->person($change->actor);

        return $person->name ?? ($change === null ? '' : MadeBy::WAYS[$change->cause->value]);
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
