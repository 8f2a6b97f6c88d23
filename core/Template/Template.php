<?php

declare(strict_types=1);

namespace VividLedger\Template;

use VividLedger\Facts\View;
use VividLedger\Record\Display;
use VividLedger\Shape\Context;
use VividLedger\Words\Words;

/** Text with merge fields in braces: "Ring {contact.name} about {number}". */
final readonly class Template
{
    /** @param  list<string|Piece>  $pieces  text, and what is merged */
    private function __construct(private array $pieces)
    {
    }

    /** @return ?self null when a merge field does not exist; the problem is noted at $at */
    public static function read(Context $context, string $text, string $at): ?self
    {
        $pieces = [];
        foreach (preg_split('/(\{[^{}]*\})/', $text, -1, PREG_SPLIT_DELIM_CAPTURE | PREG_SPLIT_NO_EMPTY) ?: [] as $piece) {
            if ($piece[0] !== '{' || ! str_ends_with($piece, '}')) {
                $pieces[] = $piece;

                continue;
            }
            $name = trim($piece, '{} ');
            $pieces[] = Pieces::named($context->schema, $context->type, $name);
            if (end($pieces) === null) {
                return $context->problem(
                    $at,
                    'unknown_field',
                    Words::say('{type} has no field ‘{name}’ to merge.', type: $context->type->label, name: $name),
                );
            }
        }

        /** @var list<string|Piece> $pieces */
        return new self($pieces);
    }

    /** One line for one record; an empty field leaves nothing behind. */
    public function render(View $view, Display $display, string $number): string
    {
        $text = $this->merged(
            $view,
            $display,
            $number,
            static fn (Piece $piece, string $lines): string => str_replace("\n", $piece->joint(), $lines),
        );

        return trim((string) preg_replace('/\s+/u', ' ', $text));
    }

    /** The same with its lines kept. */
    public function lines(View $view, Display $display, string $number): string
    {
        return trim($this->merged($view, $display, $number, static fn (Piece $piece, string $lines): string => $lines));
    }

    /** @return list<Piece> what is merged */
    public function pieces(): array
    {
        return array_values(array_filter($this->pieces, static fn (string|Piece $piece): bool => $piece instanceof Piece));
    }

    /** @param  \Closure(Piece, string): string  $joined  how what takes several lines stands in the text */
    private function merged(View $view, Display $display, string $number, \Closure $joined): string
    {
        $text = '';
        foreach ($this->pieces as $piece) {
            $text .= is_string($piece) ? $piece : $joined($piece, $piece->text($view, $display, $number));
        }

        return $text;
    }
}
