<?php

declare(strict_types=1);

namespace App\Store;

use App\Models\FoundText;
use App\Models\FoundWord;
use App\Store\Access\InSight;
use Illuminate\Database\Query\Builder;
use VividLedger\Rights\FieldAccess;
use VividLedger\Schema\Field;
use VividLedger\Schema\RecordType;

/**
 * Finds records of every type by a number, by words or their beginnings, and, where nothing is called so, by words that are nearly it.
 * Few records are searched letter by letter, many by the full-text index of the database, which knows whole words and how they begin.
 */
final readonly class Finding
{
    /** From so many on a company's records are many. */
    public const MANY = 20_000;

    /** Shorter words are in no full-text index. */
    private const SHORTEST = 3;

    private const MOST_CANDIDATES = 4000;

    public function __construct(private InSight $inSight, private int $many = self::MANY)
    {
    }

    /**
     * @return array{list<array{type: string, id: int, title: string}>, string} what was found, the best first; and what was searched for
     *     instead, where nothing is called what was asked
     */
    public function records(string $asked, int $most): array
    {
        $words = FoundTexts::words($asked);
        $found = [...$this->numbered($asked), ...$this->called($words, $asked, $most)];
        if ($found !== [] || $words === []) {
            return [array_slice($found, 0, $most), ''];
        }
        $nearly = $this->nearly($words);

        $found = $nearly === null ? [] : $this->called($nearly, implode(' ', $nearly), $most);

        // Of words that stand only in what they do not see, nobody hears.
        return [$found, $found === [] ? '' : implode(' ', (array) $nearly)];
    }

    /**
     * The records of a type that have words that begin so, for a list of very many.
     *
     * @return ?Builder of their ids; null where they are few, or a word is too short for the index
     */
    public function idsOf(RecordType $type, string $asked): ?Builder
    {
        $words = FoundTexts::words($asked);
        $isShort = array_filter($words, static fn (string $word): bool => mb_strlen($word) < self::SHORTEST) !== [];

        return $words === [] || $isShort || ! $this->areMany() ? null : FoundText::rows()->where('record_type', $type->name)
            ->whereFullText($this->columns(), self::terms($words), ['mode' => 'boolean'])->select('record_id');
    }

    /** @return list<array{type: string, id: int, title: string}> the record of that number, of whichever type */
    private function numbered(string $asked): array
    {
        $found = [];
        foreach ($this->inSight->schema()->types as $type) {
            $id = $type->idOf($asked);
            if ($id !== null) {
                $rows = $this->seen(FoundText::rows()->where('record_type', $type->name)->where('record_id', $id));
                array_push($found, ...self::read($rows));
            }
        }

        return $found;
    }

    /**
     * @param  list<string>  $words
     * @return list<array{type: string, id: int, title: string}>
     */
    private function called(array $words, string $asked, int $most): array
    {
        if ($words === []) {
            return [];
        }
        $rows = $this->seen(FoundText::rows());
        $long = array_filter($words, static fn (string $word): bool => mb_strlen($word) >= self::SHORTEST);
        if ($long !== [] && $this->areMany()) {
            $rows->whereFullText($this->columns(), self::terms($long), ['mode' => 'boolean']);
        } else {
            foreach ($words as $word) {
                $rows->whereAny($this->columns(), 'like', '%'.addcslashes($word, '\\%_').'%');
            }
        }
        // What is called just so comes first, then what begins so; of several the newest.
        $rows->orderByRaw('title = ? DESC, title LIKE ? DESC', [$asked, addcslashes($asked, '\\%_').'%'])->orderByDesc('id')->limit($most);

        return self::read($rows);
    }

    /**
     * Words that there are, nearest to those that were asked for.
     *
     * @param  list<string>  $words
     * @return ?list<string> null where there is none for one of them
     */
    private function nearly(array $words): ?array
    {
        $nearly = [];
        foreach ($words as $word) {
            $letters = mb_strlen($word);
            if (FoundWord::rows()->where('word', 'like', addcslashes($word, '\\%_').'%')->exists()) {
                $nearly[] = $word;

                continue;
            }
            $most = $letters <= 5 ? 1 : 2;
            $candidates = FoundWord::rows()->whereBetween('letters', [$letters - $most, $letters + $most])
                ->orderByRaw('LEFT(word, 1) = ? DESC', [mb_substr($word, 0, 1)])->limit(self::MOST_CANDIDATES)->pluck('word');
            $best = null;
            foreach ($letters < self::SHORTEST ? [] : $candidates as $candidate) {
                $far = self::far($word, (string) $candidate);
                if ($far <= $most && ($best === null || $far < $best[0])) {
                    $best = [$far, (string) $candidate];
                }
            }
            if ($best === null) {
                return null;
            }
            $nearly[] = $best[1];
        }

        return $nearly;
    }

    /** How many letters are too many, missing or others; two that changed places are one slip. */
    private static function far(string $word, string $other): int
    {
        for ($at = 0; $at + 1 < strlen($word); $at++) {
            $turned = $word;
            [$turned[$at], $turned[$at + 1]] = [$word[$at + 1], $word[$at]];
            if ($turned === $other) {
                return 1;
            }
        }

        return levenshtein($word, $other);
    }

    private function seen(Builder $rows): Builder
    {
        $types = array_keys($this->inSight->schema()->types);

        return $this->inSight->about($rows->whereIn('record_type', $types));
    }

    /** @return list<string> */
    private function columns(): array
    {
        return $this->seesAllTexts() ? ['title', 'body'] : ['title'];
    }

    /** @param  array<int, string>  $words */
    private static function terms(array $words): string
    {
        return implode(' ', array_map(static fn (string $word): string => "+{$word}*", $words));
    }

    /** Who sees a record but not all of its texts finds it by its title only. */
    private function seesAllTexts(): bool
    {
        if ($this->inSight->isEverything()) {
            return true;
        }
        $role = $this->inSight->sight()->role;
        $isHidden = static fn (RecordType $type): bool => array_filter(
            $type->fields, static fn (Field $field): bool => $role->access($type->name, $field->name) === FieldAccess::Hidden,
        ) !== [];

        return array_filter($this->inSight->allTypes(), $isHidden) === [];
    }

    private function areMany(): bool
    {
        // The highest id is at hand; how many there are would have to be counted.
        return (int) FoundText::rows()->max('id') >= $this->many;
    }

    /** @return list<array{type: string, id: int, title: string}> */
    private static function read(Builder $rows): array
    {
        return array_values($rows->get(['record_type', 'record_id', 'title'])->map(static fn (\stdClass $row): array => [
            'type' => (string) $row->record_type, 'id' => (int) $row->record_id, 'title' => (string) $row->title,
        ])->all());
    }
}
