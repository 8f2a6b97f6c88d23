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

    /** What is said of one, and of many. */
    /** Words that "is" and "has" can be drawn together with. */
    private const BEFORE_IS = ['it', 'there', 'that', 'who', 'what', 'here', 'nobody', 'somebody', 'someone', 'everybody'];

    /** Words that "not" can be drawn together with. */
    private const BEFORE_NOT = [
        'is', 'are', 'was', 'were', 'has', 'have', 'had', 'does', 'do', 'did', 'must', 'should', 'would', 'could', 'need',
    ];

    private const ALIKE = ['is' => 'are', 'has' => 'have', 'was' => 'were'];

    public readonly string $text;

    private readonly string $lower;

    private int $furthest = 0;

    /** @var array<string, int> what could have stood at the furthest place: 0 to be typed as it is, 1 in other words, 2 described */
    private array $expected = [];

    /** @var list<array{LabelSet<mixed>, int}> labels that could have stood there, with their rank */
    private array $expectedLabels = [];

    /**
     * @var array<int, array{int, string, int, ?int}> by place: where the next word begins, it, where it ends, and what is behind an
     * article
     */
    private array $tokens = [];

    /** @var array<string, list<Parsed>> what slots found, by slot and place */
    private array $found = [];

    /**
     * @var array<string, array{list<array{string, bool}>, bool}> the words of a literal (and whether they are plain), and whether it can
     * follow a comma
     */
    private static array $literals = [];

    /** Whether words may be drawn together in it. */
    private readonly bool $isDrawn;

    /** @var array<string, true> all its words */
    private readonly array $mentioned;

    /** @var array<string, bool> literals, and whether their first word is among them */
    private array $mentions = [];

    /**
     * @param  bool  $isLoose  whether it is heard in other words too than those that are printed
     * @param  bool  $isHurried  whether sentences whose words are not in it are passed over; then nobody knows what could have stood there
     */
    public function __construct(string $text, public readonly bool $isLoose = true, public readonly bool $isHurried = false)
    {
        // What stands in quotes stays as it is; outside of them the shape of an apostrophe says nothing.
        $this->text = (string) preg_replace_callback('/“(?:\\\\.|[^”\\\\])*”|"((?:\\\\.|[^"\\\\])*)"|[^“"]+|[“"]/su',
            static fn (array $part): string => match (true) {
                str_starts_with($part[0], '“') => $part[0],
                isset($part[1]) => '“'.strtr($part[1], ['“' => '\\“', '”' => '\\”']).'”',
                default => strtr($part[0], ["'" => '’', "\u{2018}" => '’', ' > ' => ' › ']),
            }, $text);
        $this->lower = self::small($this->text);
        $this->mentioned = array_fill_keys(preg_split('/[^\p{L}\p{N}_]+/u', $this->lower) ?: [], true);
        $this->isDrawn = $isLoose && preg_match('/’s|n’t/', $this->lower) === 1;
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

    /** Whether the first word of a literal that is no article stands anywhere in it, or could be drawn together with another. */
    public function mentions(string $literal): bool
    {
        return $this->mentions[$literal] ??= $this->lookUp($literal);
    }

    private function lookUp(string $literal): bool
    {
        [$words] = self::$literals[$literal] ??= self::literal($literal);
        foreach ($words as [$word, $isPlain]) {
            if (in_array($word, self::ARTICLES, true)) {
                continue;
            }

            return ! $isPlain || isset($this->mentioned[$word]) || isset($this->mentioned[self::ALIKE[$word] ?? ''])
                || ($this->isDrawn && ($word === 'not' || $word === 'has' || $word === 'is' || in_array($word, self::BEFORE_NOT, true)));
        }

        return true;
    }

    /** @return ?int the place behind some words; null when others stand here */
    public function words(int $at, string $literal, int $rank = 0): ?int
    {
        [$words, $followsComma] = self::$literals[$literal] ??= self::literal($literal);
        $start = $at;
        $isBegun = false;
        foreach ($words as $nth => [$word, $isPlain]) {
            $next = $this->word($at, $word, $isPlain);
            if ($next === null && $nth === 0 && $followsComma && $this->isComma($at)) {
                $next = $this->word($this->skip($at) + 1, $word, $isPlain);
            }
            $next ??= $this->isDrawn ? $this->contracted($at, $word, $words[$nth - 1][0] ?? '', $words[$nth + 1][0] ?? '') : null;
            if ($next !== null) {
                $at = $next;
                $isBegun = $isBegun || ! in_array($word, self::ARTICLES, true);
            } elseif (! in_array($word, self::ARTICLES, true)) {
                if ($rank < 3 && ($isBegun || $this->tokens[$start][0] >= $this->furthest || $this->isComma($start))) {
                    $this->expectWords($words, $nth, $literal, $start, $isBegun ? $at : null, $rank);
                }

                return null;
            }
        }

        return $at;
    }

    /**
     * @template T
     *
     * @param  array<string, T>|LabelSet<T>  $labels  what each stands for
     * @return list<array{T, int, string}> what stands here and the place behind it, the longest first
     */
    public function labels(int $at, array|LabelSet $labels, int $rank = 0): array
    {
        $set = is_array($labels) ? new LabelSet($labels) : $labels;
        $found = [];
        [$start, $word, , $behind] = $this->token($at);
        foreach ($behind === null ? [[$start, $word]] : [[$start, $word], [$behind, $this->token($behind)[1]]] as [$place, $first]) {
            foreach ($set->beginning($first) as [$form, $label, $value]) {
                if (! isset($found[$label]) && $this->startsWith($place, $form)) {
                    $found[$label] = [$value, $place + strlen($form), $label];
                }
            }
        }
        $found = array_values($found);
        if ($found === []) {
            if ($rank < 3) {
                $this->expectRest($set->beginning($word), $start, $rank);
                if ($behind !== null) {
                    $this->expectRest($set->beginning($this->token($behind)[1]), $behind, $rank);
                }
            }
            if ($rank < 3 && $start >= $this->furthest && $this->reach($start)) {
                $this->expectedLabels[] = [$set, $rank];
            }

            return [];
        }
        usort($found, static fn (array $one, array $other): int => $other[1] <=> $one[1]);
        foreach ($found[0][1] >= $this->furthest ? array_keys($set->labels) : [] as $label) {
            if (str_starts_with((string) $label, "{$found[0][2]} ") || str_starts_with((string) $label, "{$found[0][2]}’")) {
                // A longer one begins like this.
                $this->expect(trim(substr((string) $label, strlen($found[0][2]))), $found[0][1], $rank === 3 ? 0 : $rank);
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

    /**
     * @param  int  $rank  0 for what is printed, 1 for another way to say it, 2 for a description that nobody would type, 3 for nothing
     * to tell
     */
    public function expect(string $what, int $at, int $rank = 0): void
    {
        if ($what === '' || $rank > 2) {
            return;
        }
        $at = $this->skip($at);
        if ($at >= $this->furthest && $this->reach($at)) {
            $this->expected[$what] = min($rank, $this->expected[$what] ?? $rank);
        }
    }

    /**
     * One of some labels could stand here.
     *
     * @param  \Closure(): list<string>  $labels  asked only when nothing was understood further on
     */
    public function expectAny(int $at, \Closure $labels): void
    {
        $at = $this->skip($at);
        if ($at >= $this->furthest && $this->reach($at)) {
            $set = new LabelSet(array_fill_keys($labels(), true));
            $this->expectedLabels[] = [$set, 0];
        }
    }

    /** @return array{int, string, array<string, int>} the furthest place (in characters), what stands there, and what could, by rank */
    public function furthest(): array
    {
        foreach ($this->expectedLabels as [$set, $rank]) {
            foreach (array_keys($set->labels) as $label) {
                $this->expected[(string) $label] = min($rank, $this->expected[(string) $label] ?? $rank);
            }
        }
        preg_match('/\G(?:(?:the|an?)\s+)?\S{1,40}/iu', $this->text, $word, 0, min($this->furthest, strlen($this->text)));

        return [mb_strlen(substr($this->text, 0, $this->furthest)), $word[0] ?? '', $this->expected];
    }

    /** @return bool whether nothing was understood beyond a place; that behind an article is the place of the article */
    private function reach(int $at): bool
    {
        if (preg_match('/(?<![\p{L}\p{N}_])(?:the|an?)\s+$/u', substr($this->lower, 0, $at), $article) === 1) {
            $at -= strlen($article[0]);
        }
        if ($at > $this->furthest) {
            $this->furthest = $at;
            $this->expected = [];
            $this->expectedLabels = [];
        }

        return $at === $this->furthest;
    }

    /** What is left of the text from a place. */
    public function rest(int $at): string
    {
        return substr($this->text, $this->skip($at));
    }

    /**
     * Where the text ends behind whole words of a label, the rest of it could follow.
     *
     * @param  list<array{string, string, mixed}>  $labels  that begin with the word here
     */
    private function expectRest(array $labels, int $start, int $rank): void
    {
        $rest = substr($this->lower, $start);
        if ($labels === [] || rtrim($rest) === $rest || strlen($this->text) < $this->furthest) {
            return;
        }
        foreach ($labels as [$form, $label]) {
            if (str_starts_with($form, rtrim($rest).' ')) {
                $this->expect(substr($label, strlen($label) - strlen($form) + strlen(rtrim($rest)) + 1), strlen($this->text), $rank);
            }
        }
    }

    /**
     * Words of which some, or none, stand here.
     *
     * @param  list<array{string, bool}>  $words
     * @param  ?int  $behind  the place behind the first of them, where more than an article stands
     */
    private function expectWords(array $words, int $nth, string $literal, int $start, ?int $behind, int $rank): void
    {
        $this->expect(trim($literal), $start, $rank);
        if ($nth === 0 && $this->isComma($start)) {
            // What is printed with a comma before it can follow behind one.
            $this->expect(implode(' ', array_column($words, 0)), $this->skip($start) + 1, $rank);
        }
        if ($behind !== null) {
            $this->expect(implode(' ', array_column(array_slice($words, $nth), 0)), $behind, $rank);
        }
    }

    private function isComma(int $at): bool
    {
        [$start, $word] = $this->tokens[$at] ?? $this->token($at);

        return $word === '' && isset($this->text[$start]) && str_contains(',:;', $this->text[$start]);
    }

    /** In small letters, and as long as it was: the handful of letters that would change their length stay as they are. */
    public static function small(string $text): string
    {
        $lower = mb_strtolower($text);

        return strlen($lower) === strlen($text) ? $lower : (string) preg_replace_callback(
            '/\p{Lu}/u',
            static fn (array $letter): string => strlen($small = mb_strtolower($letter[0])) === strlen($letter[0]) ? $small : $letter[0],
            $text,
        );
    }

    /** The letters and digits that stand together at a place. */
    public static function firstWord(string $text, int $at): string
    {
        return preg_match('/\G[\p{L}\p{N}_]+/u', $text, $word, 0, $at) === 1 ? $word[0] : '';
    }

    /**
     * @return array{list<array{string, bool}>, bool} a comma before words is printed and need not be typed; before others it can be typed
     */
    private static function literal(string $literal): array
    {
        $words = trim(mb_strtolower(str_replace("'", '’', $literal)));
        $words = (string) preg_replace('/^[,;]\s*(?=[\p{L}\p{N}])/u', '', $words);
        $each = array_filter(preg_split('/\s+/', $words) ?: [], static fn (string $word): bool => $word !== '');

        return [
            array_map(static fn (string $word): array => [$word, preg_match('/^[\p{L}\p{N}_]+$/Du', $word) === 1], array_values($each)),
            preg_match('/^[\p{L}\p{N}]/u', $words) === 1,
        ];
    }

    /**
     * "It’s" is heard as "it is" or "it has", "isn’t" as "is not".
     *
     * @return ?int the place behind what the word has been drawn together to; for "isn’t" that before "n’t", which then is "not"
     */
    private function contracted(int $at, string $word, string $before, string $behind): ?int
    {
        if ($word === 'not' && in_array($before, self::BEFORE_NOT, true)) {
            return substr($this->lower, $at, 5) === 'n’t' ? $at + 5 : null;
        }
        if ($behind === 'not' && in_array($word, self::BEFORE_NOT, true)) {
            $start = $this->skip($at);

            return $this->startsWith($start, "{$word}n’t") ? $start + strlen($word) : null;
        }

        return ($word === 'is' || $word === 'has') && in_array($before, self::BEFORE_IS, true) && $this->startsWith($at, '’s')
            ? $at + 4 : null;
    }

    /** @return ?int the place behind a word, or behind an article and the word */
    private function word(int $at, string $word, bool $isPlain): ?int
    {
        [$start, $here, $end, $behind] = $this->tokens[$at] ?? $this->token($at);
        if ($isPlain ? $here === $word || ($here !== '' && $here === (self::ALIKE[$word] ?? null)) : $this->startsWith($start, $word)) {
            return $isPlain ? $end : $start + strlen($word);
        }
        if ($behind === null || in_array($word, self::ARTICLES, true)) {
            return null;
        }
        [, $here, $end] = $this->tokens[$behind] ?? $this->token($behind);
        if ($isPlain ? $here === $word : $this->startsWith($behind, $word)) {
            return $isPlain ? $end : $behind + strlen($word);
        }

        return null;
    }

    /**
     * @return array{int, string, int, ?int} where the next word begins, it, where it ends, and the place behind it when it is an article
     */
    private function token(int $at): array
    {
        if (! isset($this->tokens[$at])) {
            $start = $this->skip($at);
            $word = self::firstWord($this->lower, $start);
            $end = $start + strlen($word);
            $this->tokens[$at] = [$start, $word, $end, in_array($word, self::ARTICLES, true) ? $this->skip($end) : null];
        }

        return $this->tokens[$at];
    }

    /** Whether a text in small letters stands at a place; a word ends where no letter or digit follows. */
    private function startsWith(int $at, string $small): bool
    {
        $length = strlen($small);

        return $length > 0 && $at + $length <= strlen($this->lower) && substr_compare($this->lower, $small, $at, $length) === 0
            && (preg_match('/[\p{L}\p{N}]$/u', $small) !== 1 || self::firstWord($this->lower, $at + $length) === '');
    }
}
