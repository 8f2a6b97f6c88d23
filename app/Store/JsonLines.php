<?php

declare(strict_types=1);

namespace App\Store;

/** Finds the line of a JSON text on which each of its values stands, so that a problem can be shown where it is. */
final class JsonLines
{
    private int $position = 0;

    private int $line = 1;

    /** @var array<string, int> line by JSON Pointer */
    private array $lines = [];

    private function __construct(private readonly string $text)
    {
    }

    /**
     * @param  string  $text  sound JSON
     * @return array<string, int> line by JSON Pointer, counted from 1
     */
    public static function of(string $text): array
    {
        $reader = new self($text);
        $reader->value('');

        return $reader->lines;
    }

    /** The line at which a text stops being the beginning of sound JSON, as nearly as its tokens tell. */
    public static function firstBad(string $text): int
    {
        $token = '/\G\s*(?:"(?:[^"\\\\\x00-\x1F]|\\\\.)*"|-?\d+(?:\.\d+)?(?:[eE][+-]?\d+)?|true|false|null|[{}\[\]:,])/';
        $position = 0;
        $open = [];
        $previous = '';
        $earlier = '';
        while (preg_match($token, $text, $found, 0, $position) === 1) {
            $now = trim($found[0]);
            $misplaced = match (true) {
                $now === '}' || $now === ']' => array_pop($open) !== ($now === '}' ? '{' : '[') || $previous === ',' || $previous === ':',
                $now === ',' => in_array($previous, ['', ',', ':', '{', '['], true),
                // A colon follows the name of a member, which follows the opening or a comma.
                $now === ':' => $previous === '' || $previous[0] !== '"' || ($earlier !== '{' && $earlier !== ','),
                default => ! in_array($previous, ['', ',', ':', '{', '['], true),
            };
            if ($misplaced) {
                return substr_count($text, "\n", 0, $position + strlen($found[0])) + 1;
            }
            if ($now === '{' || $now === '[') {
                $open[] = $now;
            }
            [$earlier, $previous] = [$previous, $now];
            $position += strlen($found[0]);
        }

        return substr_count($text, "\n", 0, $position + strspn($text, " \t\r\n", $position)) + 1;
    }

    /**
     * The line of a place, or of the nearest place above it that is in the text.
     *
     * @param  array<string, int>  $lines
     */
    public static function nearest(array $lines, string $at): int
    {
        while ($at !== '' && ! isset($lines[$at])) {
            $at = substr($at, 0, (int) strrpos($at, '/'));
        }

        return $lines[$at] ?? 1;
    }

    private function value(string $at): void
    {
        $this->space();
        $this->lines[$at] = $this->line;
        $first = $this->text[$this->position] ?? '';
        if ($first === '{' || $first === '[') {
            $this->position++;
            $this->members($at, $first === '{');
        } elseif ($first === '"') {
            $this->string();
        } else {
            $this->position += strcspn($this->text, ",]} \t\r\n", $this->position);
        }
    }

    private function members(string $at, bool $named): void
    {
        for ($index = 0; ; $index++) {
            $this->space();
            $next = $this->text[$this->position] ?? '}';
            if ($next === '}' || $next === ']') {
                $this->position++;

                return;
            }
            if ($next === ',') {
                $this->position++;
                $index--;

                continue;
            }
            $name = (string) $index;
            if ($named) {
                $name = str_replace(['~', '/'], ['~0', '~1'], $this->string());
                $this->space();
                $this->position++; // the colon
            }
            $this->value("{$at}/{$name}");
        }
    }

    private function string(): string
    {
        preg_match('/"(?:[^"\\\\]|\\\\.)*"/A', $this->text, $found, 0, $this->position);
        $this->position += strlen($found[0] ?? '"');

        return (string) json_decode($found[0] ?? '""');
    }

    private function space(): void
    {
        $length = strspn($this->text, " \t\r\n", $this->position);
        $this->line += substr_count($this->text, "\n", $this->position, $length);
        $this->position += $length;
    }
}
