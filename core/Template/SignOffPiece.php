<?php

declare(strict_types=1);

namespace VividLedger\Template;

use VividLedger\Facts\View;
use VividLedger\Record\Display;

/** Something of the latest sign-off of the record: who decided, what they said. */
final readonly class SignOffPiece implements Piece
{
    public function __construct(private SignOffWord $word)
    {
    }

    public function name(): string
    {
        return "sign_off.{$this->word->value}";
    }

    public function label(): string
    {
        return $this->word->label();
    }

    public function text(View $view, Display $display, string $number): string
    {
        return implode("\n", $this->lines($view));
    }

    public function joint(): string
    {
        return '; ';
    }

    public function isMissing(View $view): bool
    {
        return $this->lines($view) === [];
    }

    /** @return list<string> */
    private function lines(View $view): array
    {
        $seen = $view->facts->signOffOn($view->record->type, $view->record->id);

        return $seen === null ? [] : $this->word->lines($seen, $view->facts);
    }
}
