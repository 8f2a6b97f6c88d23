<?php

declare(strict_types=1);

namespace VividLedger\Template;

use VividLedger\Facts\SlipSeen;
use VividLedger\Facts\View;
use VividLedger\Record\Display;

/** Something of the latest slip about the record: who answered, what they answered. */
final readonly class SlipPiece implements Piece
{
    private function __construct(private string $word, private string $label)
    {
    }

    /** @return list<self> */
    public static function all(): array
    {
        return [new self('answers', 'what the slip came back with'), new self('by', 'who has the slip, or had it last')];
    }

    public function name(): string
    {
        return "slip.{$this->word}";
    }

    public function label(): string
    {
        return $this->label;
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
        $seen = $view->facts->slipOn($view->record->type, $view->record->id);

        foreach ($this->word === 'by' ? [] : $seen->answers ?? [] as $answer) {
            if (isset($answer['path'])) {
                $view->tellsField($view->record->type, $view->record->id, $answer['path']);
            }
        }

        return $seen === null ? [] : $this->of($seen);
    }

    /** @return list<string> */
    private function of(SlipSeen $seen): array
    {
        return $this->word === 'by' ? ($seen->to === '' ? [] : [$seen->to]) : array_map(
            static fn (array $one): string => $one['asked'].(str_ends_with($one['asked'], '?') ? ' ' : ': ').$one['said'],
            $seen->answers,
        );
    }
}
