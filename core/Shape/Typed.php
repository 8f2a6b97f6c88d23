<?php

declare(strict_types=1);

namespace VividLedger\Shape;

/**
 * A text that somebody typed. Words are found in it without regard to case, articles and the shape of quotes. It remembers the
 * furthest place at which something was expected: that is where a misreading is.
 */
final class Typed
{
    private const ARTICLES = ['a', 'an', 'the'];

    public readonly string $text;

    private readonly string $lower;

    private int $furthest = 0;

    /** @var array<string, int> what could have stood at the furthest place: 0 to be typed as it is, 1 in other words, 2 described */
    private array $expected = [];

    /** @var array<string, list<Parsed>> what slots found, by slot and place */
    private array $found = [];

    /** @var array<string, array{string, bool}> words in small letters, and whether they end in a letter */
    private array $folded = [];

    /** @var array<string, array{list<string>, bool}> the words of a literal, and whether it can stand behind a comma */
    private static array $literals = [];

    public function __construct(string $text)
    {
        // What stands in quotes stays as it is; outside of them the shape of an apostrophe says nothing.
        $this->text = (string) preg_replace_callback('/“(?:\\\\.|[^”\\\\])*”|"((?:\\\\.|[^"\\\\])*)"|[^“"]+|[“"]/su',
            static fn (array $part): string => match (true) {
                str_starts_with($part[0], '“') => $part[0],
                isset($part[1]) => '“'.strtr($part[1], ['“' => '\\“', '”' => '\\”']).'”',
                default => strtr($part[0], ["'" => '’', "\u{2018}" => '’', ' > ' => ' › ']),
            }, $text);
        $this->lower = self::small($this->text);
    }

    /** The place of the next word. */
    public function skip(int $at): int
    {
        return $at + strspn($this->text, " \t\n\r\v\f", $at);
    }

    /** Whether nothing is left but a full stop. */
    public function isDone(int $at): bool
    {
        return trim(substr($this->text, $this->skip($at)), " \t\n\r.!") === '';
    }

    /**
     * What a slot finds at a place; looked for once.
     *
     * @param  \Closure(): list<Parsed>  $look
     * @return list<Parsed>
     */
    public function once(string $what, int $at, \Closure $look): array
    {
        return $this->found["{$what}@{$at}"] ??= $look();
    }

    /** @return ?int the place behind some words; null when others stand here */
    public function words(int $at, string $literal, int $rank = 0): ?int
    {
        [$words, $followsComma] = self::$literals[$literal] ??= self::literal($literal);
        $start = $at;
        foreach ($words as $nth => $word) {
            $next = $word === '' ? $at : $this->word($at, $word);
            if ($next === null && $nth === 0 && $followsComma && ($comma = $this->skip($at)) < strlen($this->text)
                && in_array($this->text[$comma], [',', ':', ';'], true)) {
                $next = $this->word($comma + 1, $word);
            }
            if ($next !== null) {
                $at = $next;
            } elseif (! in_array($word, self::ARTICLES, true)) {
                $this->expect(trim($literal), $start, $rank);
                // Half of it stands here, and more of it than an article: the other half could follow.
                if (array_diff(array_slice($words, 0, $nth), self::ARTICLES) !== []) {
                    $this->expect(implode(' ', array_slice($words, $nth)), $at, $rank);
                }

                return null;
            }
        }

        return $at;
    }

    /**
     * @template T
     *
     * @param  array<string, T>  $labels  what each stands for
     * @return list<array{T, int, string}> what stands here and the place behind it, the longest first
     */
    public function labels(int $at, array $labels, int $rank = 0): array
    {
        $found = [];
        foreach ($this->starts($at) as $start) {
            foreach ($labels as $label => $value) {
                $length = $this->startsWith($start, (string) $label) ?? $this->startsWith(
                    $start,
                    (string) preg_replace('/^(?:a|an|the) /i', '', (string) $label),
                );
                if ($length !== null) {
                    $found[(string) $label] ??= [$value, $start + $length, (string) $label];
                }
            }
        }
        $found = array_values($found);
        usort($found, static fn (array $one, array $other): int => $other[1] <=> $one[1]);
        foreach (array_keys($labels) as $label) {
            if ($found === []) {
                $this->expect((string) $label, $at, $rank);
                $this->expectRest((string) $label, $at, $rank);
            } elseif (str_starts_with((string) $label, "{$found[0][2]} ") || str_starts_with((string) $label, "{$found[0][2]}’")) {
                // A longer one begins like this.
                $this->expect(trim(substr((string) $label, strlen($found[0][2]))), $found[0][1], $rank);
            }
        }

        return $found;
    }

    /** @return ?array{string, int} what stands in quotes here, and the place behind it */
    public function quoted(int $at): ?array
    {
        $at = $this->skip($at);
        if (preg_match('/\G[,:]?\s*(?:“((?:[^”\\\\]|\\\\.)*)”|’((?:[^’])*)’)/su', $this->text, $found, 0, $at) !== 1) {
            $this->expect('“…”', $at);

            return null;
        }
        $text = (string) preg_replace_callback(
            '/\\\\(.)/su',
            static fn (array $escaped): string => $escaped[1] === 'n' ? "\n" : $escaped[1],
            $found[1] !== '' ? $found[1] : ($found[2] ?? ''),
        );

        return [$text, $at + strlen($found[0])];
    }

    /** A text in quotes, so that quoted() gives it back. */
    public static function quote(string $text): string
    {
        return '“'.str_replace("\n", '\n', (string) preg_replace('/[“”\\\\]/u', '\\\\$0', $text)).'”';
    }

    /**
     * @param  int  $rank  see expect()
     * @return ?array{list<string>, int} the groups of a pattern that stands here, and the place behind it
     */
    public function pattern(int $at, string $pattern, string $expected, int $rank = 2): ?array
    {
        $at = $this->skip($at);
        if (preg_match("/\\G(?:{$pattern})/iu", $this->text, $found, 0, $at) !== 1) {
            $this->expect($expected, $at, $rank);

            return null;
        }

        return [array_values($found), $at + strlen($found[0])];
    }

    /** @param  int  $rank  0 for what is printed, 1 for another way to say it, 2 for a description that nobody would type, 3 for nothing to tell */
    public function expect(string $what, int $at, int $rank = 0): void
    {
        $at = $this->skip($at);
        if ($what === '' || $at < $this->furthest || $rank > 2) {
            return;
        }
        if ($at > $this->furthest) {
            $this->furthest = $at;
            $this->expected = [];
        }
        $this->expected[$what] = min($rank, $this->expected[$what] ?? $rank);
    }

    /** @return array{int, string, array<string, int>} the furthest place (in characters), what stands there, and what could, by rank */
    public function furthest(): array
    {
        preg_match('/\G\S{1,40}/u', $this->text, $word, 0, min($this->furthest, strlen($this->text)));

        return [mb_strlen(substr($this->text, 0, $this->furthest)), $word[0] ?? '', $this->expected];
    }

    /** What is left of the text from a place. */
    public function rest(int $at): string
    {
        return substr($this->text, $this->skip($at));
    }

    /** @return list<int> the places at which a label can begin: here, and behind an article */
    private function starts(int $at): array
    {
        $at = $this->skip($at);
        $behind = $this->article($at);

        return $behind === null ? [$at] : [$at, $behind];
    }

    /** Where the text ends behind whole words of a label, the rest of it could follow. */
    private function expectRest(string $label, int $start, int $rank): void
    {
        if ($this->lower === '' || ! ctype_space($this->lower[strlen($this->lower) - 1])) {
            return;
        }
        $typed = rtrim(ltrim(substr($this->lower, $start)));
        foreach ([$label, (string) preg_replace('/^(?:a|an|the) /i', '', $label)] as $form) {
            if ($typed !== '' && ! in_array($typed, self::ARTICLES, true) && str_starts_with(self::small($form), "{$typed} ")) {
                $this->expect(substr($form, strlen($typed) + 1), strlen($this->text), $rank);
            }
        }
    }

    /** In small letters, and as long as it was: the handful of letters that would change their length stay as they are. */
    private static function small(string $text): string
    {
        $lower = mb_strtolower($text);

        return strlen($lower) === strlen($text) ? $lower : (string) preg_replace_callback(
            '/\p{Lu}/u',
            static fn (array $letter): string => strlen($small = mb_strtolower($letter[0])) === strlen($letter[0]) ? $small : $letter[0],
            $text,
        );
    }

    /** @return array{list<string>, bool} a comma before words is printed and need not be typed; before others it can be typed */
    private static function literal(string $literal): array
    {
        $words = trim(mb_strtolower(str_replace("'", '’', $literal)));
        $words = (string) preg_replace('/^[,;]\s*(?=[\p{L}\p{N}])/u', '', $words);

        return [preg_split('/\s+/', $words) ?: [], preg_match('/^[\p{L}\p{N}]/u', $words) === 1];
    }

    private function word(int $at, string $word): ?int
    {
        $at = $this->skip($at);
        $length = $this->startsWith($at, $word);
        if ($length === null && ! in_array($word, self::ARTICLES, true)) {
            $behind = $this->article($at);
            $length = $behind === null ? null : $this->startsWith($behind, $word);
            $at = $behind ?? $at;
        }

        return $length === null ? null : $at + $length;
    }

    /** @return ?int the place of the word behind an article */
    private function article(int $at): ?int
    {
        foreach (self::ARTICLES as $article) {
            $length = $this->startsWith($at, $article);
            if ($length !== null) {
                return $this->skip($at + $length);
            }
        }

        return null;
    }

    private function startsWith(int $at, string $what): ?int
    {
        [$small, $isWord] = $this->folded[$what] ??= [
            $fold = self::small(str_replace(["'", "\u{2018}"], '’', $what)),
            preg_match('/[\p{L}\p{N}]$/u', $fold) === 1,
        ];
        $length = strlen($small);
        if ($length === 0 || $at + $length > strlen($this->lower) || substr_compare($this->lower, $small, $at, $length) !== 0) {
            return null;
        }

        // A word ends where no letter or digit follows.
        return $isWord && preg_match('/\G[\p{L}\p{N}_]/u', $this->lower, offset: $at + $length) === 1 ? null : $length;
    }
}
