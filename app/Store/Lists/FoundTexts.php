<?php

declare(strict_types=1);

namespace App\Store\Lists;

use App\Models\Records\FoundText;
use App\Models\Records\FoundWord;
use App\Models\Records\StoredRecord;
use App\Store\Sql\Batch;
use Illuminate\Support\Facades\DB;
use VividLedger\Record\Record;
use VividLedger\Schema\Field;
use VividLedger\Schema\RecordType;

/** Keeps what records are found by in step with them: whoever writes records tells it. */
final readonly class FoundTexts
{
    private const LONGEST_TITLE = 255;

    private const WORDS_AT_ONCE = 1000;

    private const LONGEST_WORD = 40;

    /** @param  list<array{?Record, ?Record, RecordType}>  $changes  each record as it was (null: not yet) and is to be (null: deleted) */
    public function write(array $changes): void
    {
        [$rows, $gone] = [[], []];
        foreach ($changes as [$before, $after, $type]) {
            $record = $after ?? $before;
            if ($record === null) {
                continue;
            }
            $texts = $after === null ? null : self::texts($type, $after);
            if ($texts === null) {
                $gone[$type->name][] = $record->id;
            } elseif ($before === null || self::texts($type, $before) !== $texts) {
                $rows[] = ['record_type' => $type->name, 'record_id' => $record->id, ...$texts, 'is_new' => 1];
            }
        }
        Batch::insert(FoundText::class, $rows, ['title', 'body', 'is_new']);
        foreach ($gone as $type => $ids) {
            FoundText::rows()->where('record_type', $type)->whereIn('record_id', $ids)->delete();
        }
    }

    /** What fills it from the records of a type that are there, as SQL that is bound to the name of the type. */
    public static function fill(RecordType $type): string
    {
        $columns = array_map(static fn (Field $field): string => "`{$field->name}`", self::fields($type));
        $body = $columns === [] ? "''" : 'CONCAT_WS(\' \', '.implode(', ', $columns).')';
        $title = "LEFT(COALESCE(`{$type->title}`, ''), ".self::LONGEST_TITLE.')';

        return "INSERT IGNORE INTO found_texts (record_type, record_id, title, body) SELECT ?, id, {$title}, {$body} FROM `"
            .StoredRecord::tableOf($type->name).'`';
    }

    /**
     * Takes up the words of what was written lately.
     *
     * @return int of how many records
     */
    public function takeUpWords(): int
    {
        $rows = FoundText::rows()->where('is_new', true)->orderBy('id')->limit(self::WORDS_AT_ONCE)->get(['id', 'title']);
        $words = [];
        foreach ($rows as $row) {
            foreach (array_unique(self::words((string) $row->title)) as $word) {
                $words[$word] ??= ['word' => $word, 'letters' => mb_strlen($word), 'records' => 0];
                $words[$word]['records']++;
            }
        }
        foreach (array_chunk(array_values($words), self::WORDS_AT_ONCE) as $some) {
            FoundWord::rows()->upsert($some, ['word'], ['records' => DB::raw('records + VALUES(records)')]);
        }
        FoundText::rows()->whereIn('id', $rows->pluck('id'))->update(['is_new' => false]);

        return $rows->count();
    }

    /** @return list<string> the words of a text, in lower case, without what only parts them */
    public static function words(string $text): array
    {
        $words = preg_split('/[^\p{L}\p{N}]+/u', mb_strtolower($text), -1, PREG_SPLIT_NO_EMPTY) ?: [];

        return array_values(array_filter($words, static fn (string $word): bool => mb_strlen($word) <= self::LONGEST_WORD));
    }

    /** @return list<Field> the texts of a line besides the title */
    private static function fields(RecordType $type): array
    {
        return array_values(array_diff_key($type->shortTexts(), [$type->title => true]));
    }

    /** @return array{title: string, body: string} */
    private static function texts(RecordType $type, Record $record): array
    {
        $body = array_map(static fn (Field $field): string => (string) $record->value($field->name), self::fields($type));

        return [
            'title' => mb_substr((string) $record->value($type->title), 0, self::LONGEST_TITLE),
            'body' => implode(' ', array_filter($body, static fn (string $text): bool => $text !== '')),
        ];
    }
}
