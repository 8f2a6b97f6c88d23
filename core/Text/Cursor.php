<?php

declare(strict_types=1);

namespace VividLedger\Text;

/**
 * A place in a text that is being read. It goes on over words, labels and quotations without regard to case, articles and
 * the shape of quotes, and remembers the furthest place at which something was expected: that is where a misreading is.
 */
final class Cursor
{
    private const ARTICLES = ['a', 'an', 'the'];

    private readonly string $text;

    private readonly string $lower;

    public int $at = 0;

    private int $furthest = 0;

    /** @var array<string, bool> what could have stood at the furthest place, and whether it is typed as it is said */
    private array $expected = [];

    public function __construct(string $text)
    {
        // What stands in quotes stays as it is; outside of them the shape of an apostrophe says nothing.
        $this->text = (string) preg_replace_callback('/“(?:\\\\.|[^”\\\\])*”|"((?:\\\\.|[^"\\\\])*)"|[^“"]+|[“"]/su',
            static fn (array $part): string => match (true) {
                str_starts_with($part[0], '“') => $part[0],
                isset($part[1]) => '“'.strtr($part[1], ['“' => '\\“', '”' => '\\”']).'”',
                default => strtr($part[0], ["'" => '’', "\u{2018}" => '’', ' > ' => ' › ']),
            }, $text);
        $this->lower = self::folded($this->text);
    }

    public function skip(): void
    {
        while ($this->at < strlen($this->text) && ctype_space($this->text[$this->at])) {
            $this->at++;
        }
    }

    public function isDone(): bool
    {
        $this->skip();

        return $this->at >= strlen($this->text);
    }

    /** Goes on over some words; false, and it stays where it is, when others stand here. */
    public function words(string $literal): bool
    {
        $start = $this->at;
        $words = preg_split('/\s+/', trim(mb_strtolower(str_replace("'", '’', $literal)))) ?: [];
        foreach ($words as $nth => $word) {
            if ($word !== '' && ! $this->word($word) && ! in_array($word, self::ARTICLES, true)) {
                $this->expect($literal, $start);
                // Half of it stands here, and more of it than an article: the other half could follow.
                if (array_diff(array_slice($words, 0, $nth), self::ARTICLES) !== []) {
                    $this->expect(implode(' ', array_slice($words, $nth)));
                }
                $this->at = $start;

                return false;
            }
        }

        return true;
    }

    /**
     * Goes on over the longest of some labels.
     *
     * @template T
     *
     * @param  array<string, T>  $labels  what each stands for
     * @return ?array{T} null when none stands here
     */
    public function label(array $labels): ?array
    {
        $start = $this->at;
        $found = null;
        $end = $start;
        $taken = '';
        foreach ([false, true] as $withoutArticle) {
            $this->at = $start;
            $this->skip();
            if ($withoutArticle && ! $this->article()) {
                continue;
            }
            foreach ($labels as $label => $value) {
                $length = $this->startsWith((string) $label) ?? $this->startsWith(
                    (string) preg_replace('/^(?:a|an|the) /i', '', (string) $label),
                );
                if ($length !== null && $this->at + $length > $end) {
                    $end = $this->at + $length;
                    $found = [$value];
                    $taken = (string) $label;
                }
            }
        }
        $this->at = $found === null ? $start : $end;
        foreach (array_keys($labels) as $label) {
            if ($found === null) {
                $this->expect((string) $label, $start);
                $this->expectRest((string) $label, $start);
            } elseif (str_starts_with((string) $label, "{$taken} ") || str_starts_with((string) $label, "{$taken}’")) {
                // A longer one begins like this.
                $this->expect(trim(substr((string) $label, strlen($taken))));
            }
        }

        return $found;
    }

    /** Where the text ends behind whole words of a label, the rest of it could follow. */
    private function expectRest(string $label, int $start): void
    {
        if ($this->lower === '' || ! ctype_space($this->lower[strlen($this->lower) - 1])) {
            return;
        }
        $typed = rtrim(ltrim(substr($this->lower, $start)));
        foreach ([$label, (string) preg_replace('/^(?:a|an|the) /i', '', $label)] as $form) {
            if ($typed !== '' && ! in_array($typed, self::ARTICLES, true) && str_starts_with(self::folded($form), "{$typed} ")) {
                $this->expect(substr($form, strlen($typed) + 1), strlen($this->text));
            }
        }
    }

    /** What stands in quotes here; null when nothing does. */
    public function quoted(): ?string
    {
        $this->skip();
        if (preg_match('/\G(?:“((?:[^”\\\\]|\\\\.)*)”|’((?:[^’])*)’)/su', $this->text, $found, 0, $this->at) !== 1) {
            $this->expect('“…”', $this->at);

            return null;
        }
        $this->at += strlen($found[0]);

        return (string) preg_replace_callback(
            '/\\\\(.)/su',
            static fn (array $escaped): string => $escaped[1] === 'n' ? "\n" : $escaped[1],
            $found[1] !== '' ? $found[1] : ($found[2] ?? ''),
        );
    }

    /** A text in quotes, so that quoted() gives it back. */
    public static function quote(string $text): string
    {
        return '“'.str_replace("\n", '\n', (string) preg_replace('/[“”\\\\]/u', '\\\\$0', $text)).'”';
    }

    /**
     * @param  bool  $isTyped  whether what is expected may be typed as it is said
     * @return ?list<string> the groups of a pattern that stands here
     */
    public function pattern(string $pattern, string $expected, bool $isTyped = false): ?array
    {
        $this->skip();
        if (preg_match("/\\G(?:{$pattern})/iu", $this->text, $found, 0, $this->at) !== 1) {
            $this->expect($expected, isTyped: $isTyped);

            return null;
        }
        $this->at += strlen($found[0]);

        return array_values($found);
    }

    /** Something is described that may stand here; nobody would type the words it is described by. */
    public function expectSome(string $described): void
    {
        $this->expect($described, isTyped: false);
    }

    public function expect(string $what, ?int $at = null, bool $isTyped = true): void
    {
        $at ??= $this->at;
        while ($at < strlen($this->text) && ctype_space($this->text[$at])) {
            $at++;
        }
        if ($at > $this->furthest) {
            $this->furthest = $at;
            $this->expected = [];
        }
        if ($at === $this->furthest) {
            $this->expected[$what] = $isTyped;
        }
    }

    /**
     * @return array{int, string, list<string>, list<string>} the furthest place (in characters), the word that stands there, what could
     *     have stood there, and what of that can be typed as it is
     */
    public function misread(): array
    {
        preg_match('/\G\S{1,40}/u', $this->text, $word, 0, min($this->furthest, strlen($this->text)));

        $texts = static fn (array $expected): array => array_map(strval(...), array_keys($expected));

        return [
            mb_strlen(substr(
                $this->text,
                0,
                $this->furthest,
            )), $word[0] ?? '', $texts($this->expected), $texts(array_filter($this->expected)),
        ];
    }

    private function word(string $word): bool
    {
        $this->skip();
        $length = $this->startsWith($word);
        if ($length === null && ! in_array($word, self::ARTICLES, true)) {
            $start = $this->at;
            if ($this->article()) {
                $length = $this->startsWith($word);
                if ($length === null) {
                    $this->at = $start;
                }
            }
        }
        $this->at += $length ?? 0;

        return $length !== null;
    }

    private function article(): bool
    {
        foreach (self::ARTICLES as $article) {
            $length = $this->startsWith($article);
            if ($length !== null) {
                $this->at += $length;
                $this->skip();

                return true;
            }
        }

        return false;
    }

    /** In small letters, and as long as it was: the handful of letters that would change their length stay as they are. */
    private static function folded(string $text): string
    {
        $lower = mb_strtolower($text);

        return strlen($lower) === strlen($text) ? $lower : (string) preg_replace_callback(
            '/\p{Lu}/u',
            static fn (array $letter): string => strlen($small = mb_strtolower($letter[0])) === strlen($letter[0]) ? $small : $letter[0],
            $text,
        );
    }

    private function startsWith(string $what): ?int
    {
        $what = self::folded(str_replace(["'", "\u{2018}"], '’', $what));
        $length = strlen($what);
        if ($length === 0 || substr_compare($this->lower, $what, $this->at, $length) !== 0) {
            return null;
        }
        $next = substr($this->text, $this->at + $length, 4);

        // A word ends where no letter or digit follows.
        return preg_match('/[\p{L}\p{N}]$/u', $what) === 1 && preg_match('/^[\p{L}\p{N}_]/u', $next) === 1 ? null : $length;
    }
}
