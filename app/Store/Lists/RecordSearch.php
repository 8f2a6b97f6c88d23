<?php

declare(strict_types=1);

namespace App\Store\Lists;

use App\Models\Records\FoundText;
use App\Models\Records\FoundWord;
use App\Store\Access\AccessScope;
use Illuminate\Database\Query\Builder;
use VividLedger\Rights\FieldAccess;
use VividLedger\Schema\Field;
use VividLedger\Schema\RecordType;
use VividLedger\Text\Letters;

/**
 * Finds records of every type by a number, by words or their beginnings, and, where nothing is called so, by words that are nearly it.
 * Few records are searched letter by letter, many by the full-text index of the database, which knows whole words and how they begin.
 */
final readonly class RecordSearch
{
    /** From so many on a company's records are many. */
    public const MANY = 20_000;

    /** Shorter words are in no full-text index. */
    private const SHORTEST = 3;

    private const MOST_CANDIDATES = 4000;

    /** A word in more records than that is looked for among the newest, where it is soon found. */
    private const COMMON = 10_000;

    private const MOST_LOOKED_AT = 40_000;

    public function __construct(private AccessScope $inSight, private int $many = self::MANY)
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

    /** In a list: the record of that number, or those that have every word in a text of theirs. */
    public function inList(RecordType $type, string $asked): SearchFilter
    {
        $id = $type->idOf($asked);
        if ($id !== null) {
            return new SearchFilter(true, static fn (Builder $records): Builder => $records->where('t.id', $id));
        }
        // The index has all texts, those too that are hidden from whoever asks.
        $all = $this->inSight->allTypes()[$type->name] ?? $type;
        $ids = array_diff_key($all->fields, $type->fields) === [] ? $this->idsOf($type, $asked) : null;
        if ($ids !== null) {
            return new SearchFilter(true, static fn (Builder $records): Builder => $records->whereIn('t.id', clone $ids));
        }
        $columns = array_map(static fn (string $name): string => "t.{$name}", array_keys($type->shortTexts()));
        $words = preg_split('/\s+/u', $asked, -1, PREG_SPLIT_NO_EMPTY) ?: [];

        return new SearchFilter(false, static function (Builder $records) use ($columns, $words): Builder {
            foreach ($words as $word) {
                $records->whereAny($columns, 'like', '%'.addcslashes($word, '\\%_').'%');
            }

            return $records;
        });
    }

    /**
     * The records of a type that have words that begin so, for a list of very many.
     *
     * @return ?Builder of their ids; null where going through the newest finds them sooner: of few, and of words that stand nearly
     *     everywhere
     */
    private function idsOf(RecordType $type, string $asked): ?Builder
    {
        $words = FoundTexts::words($asked);
        $rarest = $this->areMany() ? $this->rarest($words) : null;
        $rows = FoundText::rows()->where('record_type', $type->name);

        return $rarest === null ? null : $this->withWords($rows, $words, $rarest)->select('record_id');
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
        // What is called just so comes first, the newest of it, then what begins so. Each is read in the order of an index: sorted,
        // it would not be cut short by a limit, but fail.
        $exact = $this->seen(FoundText::rows()->where('title', $asked))->orderByDesc('id');
        $begun = $this->seen(FoundText::rows()->where('title', 'like', addcslashes($asked, '\\%_').'%'))->orderBy('title');
        $rest = $this->seen(FoundText::rows())->orderByDesc('id');
        $areMany = $this->areMany();
        $rarest = $areMany ? $this->rarest($words) : null;
        $this->withWords($rest, $words, $rarest);
        if ($rarest === null && $areMany) {
            foreach ([$exact, $begun, $rest] as $rows) {
                $rows->lock('ROWS EXAMINED '.self::MOST_LOOKED_AT);
            }
        }
        $found = [];
        foreach ([$exact, $begun, $rest] as $rows) {
            foreach (count($found) < $most ? self::read($rows->limit($most)) : [] as $one) {
                $found["{$one['type']} {$one['id']}"] ??= $one;
            }
        }

        return array_slice(array_values($found), 0, $most);
    }

    /**
     * Rows that have every word; the index looks up the rarest only, because it would go through all that have a common one.
     *
     * @param  list<string>  $words
     */
    private function withWords(Builder $rows, array $words, ?string $rarest): Builder
    {
        $columns = $this->columns();
        if ($rarest !== null) {
            $rows->whereFullText($columns, "+{$rarest}*", ['mode' => 'boolean']);
        }
        foreach ($words as $word) {
            if ($word !== $rarest) {
                $rows->whereAny($columns, 'like', '%'.addcslashes($word, '\\%_').'%');
            }
        }

        return $rows;
    }

    /**
     * @param  list<string>  $words
     * @return ?string null where each of them is too short for the index, or stands in very many records
     */
    private function rarest(array $words): ?string
    {
        $best = null;
        foreach ($words as $word) {
            if (mb_strlen($word) < self::SHORTEST) {
                continue;
            }
            $records = (int) FoundWord::rows()->where('word', 'like', addcslashes($word, '\\%_').'%')->sum('records');
            if ($records <= self::COMMON && ($best === null || $records < $best[0])) {
                $best = [$records, $word];
            }
        }

        return $best[1] ?? null;
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
                $far = Letters::slips($word, (string) $candidate);
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
