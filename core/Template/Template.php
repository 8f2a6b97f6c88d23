<?php

declare(strict_types=1);

namespace VividLedger\Template;

use VividLedger\Engine\View;
use VividLedger\Record\Display;
use VividLedger\Rule\Reading\Context;
use VividLedger\Schema\Path;

/** Text with merge fields in braces: "Ring {contact.name} about {number}". */
final readonly class Template
{
    /** @param  list<string|Path|null>  $pieces text, a path to merge, or null for the record's number */
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
            $path = $name === 'number' ? null : $context->schema->path($context->type, $name);
            if ($path === null && $name !== 'number') {
                return $context->problem($at, 'unknown_field', "{$context->type->label} has no field ‘{$name}’ to merge.");
            }
            $pieces[] = $path;
        }

        return new self($pieces);
    }

    /** One line for one record; an empty field leaves nothing behind. */
    public function render(View $view, Display $display, string $number): string
    {
        return trim((string) preg_replace('/\s+/u', ' ', $this->lines($view, $display, $number)));
    }

    /** The same with its lines kept. */
    public function lines(View $view, Display $display, string $number): string
    {
        $text = '';
        foreach ($this->pieces as $piece) {
            $text .= match (true) {
                is_string($piece) => $piece,
                $piece === null => $number,
                default => $display->merged($piece->field, $view->value($piece)),
            };
        }

        return trim($text);
    }

    /** @return list<Path> the merge fields */
    public function paths(): array
    {
        return array_values(array_filter($this->pieces, static fn (string|Path|null $piece): bool => $piece instanceof Path));
    }
}
