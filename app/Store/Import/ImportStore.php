<?php

declare(strict_types=1);

namespace App\Store\Import;

use App\Models\Import\ImportFilePiece;
use App\Models\Import\ImportProblem;
use App\Models\Lists\BulkJob;
use App\Models\Lists\BulkKind;
use App\Models\Lists\BulkStatus;
use App\Models\People\Person;
use App\Store\DomainError;
use App\Store\LedgerConnection;
use App\Store\Lists\BulkStore;
use App\Store\RefusedFor;
use App\Store\Setup\Company;
use App\Store\Types\SchemaStore;
use VividLedger\Import\ColumnGuess;
use VividLedger\Import\Convention;
use VividLedger\Import\Mode;
use VividLedger\Record\Language;
use VividLedger\Schema\Field;
use VividLedger\Schema\RecordType;
use VividLedger\Words\Words;

/** Imports, from the first piece of a file to the word that begins them. Who goes through their rows stands in Evidence\Bulk. */
final readonly class ImportStore
{
    public const MOST_BYTES = 50_000_000;

    public const PIECE_BYTES = 1_000_000;

    public const MOST_ROWS = 500_000;

    private const MOST_COLUMNS = 200;

    private const SAMPLE = 200;

    public function __construct(
        private LedgerConnection $db,
        private BulkStore $bulk,
        private SchemaStore $schemas,
        private Company $company,
    ) {
    }

    /** @throws DomainError */
    public function begin(RecordType $type, Person $by, string $name, int $bytes): BulkJob
    {
        if ($bytes > self::MOST_BYTES) {
            $size = Language::spoken()->number(number_format($bytes / 1e6, 1, '.', ''));
            throw new DomainError('too_large',
                Words::say(
                    '‘{name}’ has {size} MB, and at most 50 MB are taken at a time. Part it, and bring in each part.',
                    name: $name,
                    size: $size,
                ));
        }

        return $this->bulk->begin(BulkKind::Import, $type, $by, ['name' => mb_substr($name, 0, 200)]);
    }

    /** A piece may come twice, when whoever sent it did not hear that it had arrived. */
    public function put(BulkJob $job, int $place, string $content): void
    {
        $this->mustBe($job, BulkStatus::Draft);
        if (strlen($content) > self::PIECE_BYTES || $place * self::PIECE_BYTES >= self::MOST_BYTES) {
            throw new DomainError('too_large', Words::say('A file comes in pieces of a million bytes, fifty at most.'));
        }
        ImportFilePiece::rows()->upsert(['job_id' => $job->id, 'place' => $place, 'content' => $content], ['job_id', 'place'], ['content']);
    }

    /**
     * Reads what the file is made of, and guesses what its columns are for.
     *
     * @throws DomainError
     */
    public function read(BulkJob $job): void
    {
        $this->mustBe($job, BulkStatus::Draft);
        $file = new ImportedFile($job);
        $form = $file->form();
        $plan = new ImportPlan(
            $job->spec['name'], $form->encoding, $form->delimiter, $form->skips, endsWithReturns: $form->endsWithReturns,
        );
        $above = $form->above;
        [$heads, $begins, $sample, $count] = [null, 0, [], 0];
        foreach ($file->rows($plan) as [$cells, $reached]) {
            if ($above-- > 0) {
                continue;
            }
            if ($heads === null) {
                [$heads, $begins] = [array_map(trim(...), $cells), $reached];

                continue;
            }
            if (++$count > self::MOST_ROWS) {
                throw new DomainError(
                    'too_large',
                    Words::say(
                        'It has more than {rows} rows, and no more are taken at a time. Part it, and bring in each part.',
                        rows: Words::figures(self::MOST_ROWS),
                    ),
                );
            }
            if ($count <= self::SAMPLE) {
                $sample[] = $cells;
            }
        }
        if ($heads === null || $count === 0) {
            throw new DomainError('no_table', $heads === null ? Words::say('There is nothing in this file.')
                : Words::say('There is only one row in this file: the names of its columns.'));
        }
        if (count($heads) > self::MOST_COLUMNS) {
            throw new DomainError(
                'no_table',
                Words::say('It has more than {columns} columns. Is it the table that you mean?', columns: self::MOST_COLUMNS),
            );
        }
        $type = $this->schemas->schema()->types[$job->record_type];
        $columns = array_map(static fn (int $place): array => array_map(
            static fn (array $cells): string => $cells[$place] ?? '', $sample,
        ), array_keys($heads));
        $rows = new ImportRows($this->schemas, $this->company, $type, $plan);
        $guessed = array_filter((new ColumnGuess($type, $rows->reader()))->fields($heads, $columns));
        $before = ImportedBefore::of($job, $heads, $type);
        $guessed = $before->fields ?? $guessed;
        $key = $before === null ? self::likelyKey($type, $guessed) : $before->key;
        $mode = $before->mode ?? ($key === null ? Mode::Create : Mode::Both);
        $job->spec = [
            'name' => $plan->name, 'encoding' => $plan->encoding, 'delimiter' => $plan->delimiter, 'skips' => $plan->skips,
            'endsWithReturns' => $plan->endsWithReturns,
            'heads' => $heads, 'begins' => $begins, 'fields' => $guessed, 'key' => $key,
            'mode' => $mode->value, 'values' => $before->values ?? [],
            'samples' => array_map(static fn (array $cells): array => array_map(
                static fn (string $cell): string => mb_strimwidth($cell, 0, 60, '…'), array_slice($cells, 0, 3),
            ), $columns),
            'conventions' => array_map(static function (array $cells): array {
                $convention = Convention::of($cells);

                return ['monthFirst' => $convention->monthFirst, 'decimalComma' => $convention->decimalComma];
            }, $columns),
        ];
        $job->total = $count;
        $job->save();
    }

    /**
     * Lays down which column is for which field, and has all rows tried.
     *
     * @param  array<array-key, mixed>  $fields  by the place of the column
     * @param  list<array{field: string, from: string, to: ?string}>  $values  what is read instead of a cell, in every row
     *
     * @throws DomainError with each problem at its column
     */
    public function plan(BulkJob $job, array $fields, ?string $key, Mode $mode, array $values = []): void
    {
        if (! in_array($job->status, [BulkStatus::Draft, BulkStatus::Tried], true)) {
            throw new DomainError('wrong_status', Words::say('It has begun already.'), RefusedFor::Conflict);
        }
        $type = $this->schemas->schema()->types[$job->record_type];
        [$taken, $problems] = [[], []];
        foreach ($fields as $place => $name) {
            $isOffered = is_string($name) && ($name === ColumnGuess::NUMBER || $type->field($name)?->isSettable() === true);
            $wrong = match (true) {
                ! is_string($name) || ! isset($job->spec['heads'][$place]) => Words::say('There is no such column.'),
                ! $isOffered => Words::say('There is no such field to bring in.'),
                in_array($name, $taken, true) => Words::say('Another column is for the same field.'),
                default => null,
            };
            if ($wrong !== null) {
                $problems[] = ['at' => "/mapping/{$place}", 'code' => 'invalid_value', 'message' => $wrong];
            }
            $taken[(int) $place] = is_string($name) ? $name : '';
        }
        if ($key !== null && ! in_array($key, $taken, true)) {
            $problems[] = ['at' => '/key', 'code' => 'missing', 'message' => Words::say('No column is for what the records are known by.')];
        }
        if ($key === null && $mode !== Mode::Create) {
            $problems[] = ['at' => '/key', 'code' => 'missing',
                'message' => Words::say('Say by which field a record is known that is there already.')];
        }
        foreach ($mode === Mode::Update ? [] : $type->ownFields() as $field) {
            if (self::isMissed($field, $taken)) {
                $problems[] = [
                    'at' => '/mapping', 'code' => 'required', 'message' => Words::say(
                        '{field} has to be filled in, and no column is for it.',
                        field: $field->label,
                    ),
                ];
            }
        }
        if ($problems !== []) {
            throw new DomainError('invalid_values', $problems[0]['message'], RefusedFor::Invalid, $problems);
        }
        $meant = [];
        // What was said of a column that is left out now is forgotten with it.
        foreach (array_filter($values, static fn (array $one): bool => in_array($one['field'], $taken, true)) as $one) {
            $meant[$one['field']][ImportPlan::folded($one['from'])] = (string) $one['to'];
        }
        $this->db->transaction(function () use ($job, $taken, $key, $mode, $meant): void {
            ImportProblem::query()->where('job_id', $job->id)->delete();
            $job->spec = ['fields' => $taken, 'key' => $key, 'mode' => $mode->value, 'create' => 0, 'update' => 0, 'same' => 0,
                'rules' => [], 'refusals' => [], 'values' => $meant]
                + $job->spec;
            $job->fill(['status' => BulkStatus::Trying, 'done' => 0, 'refused' => 0, 'reached' => $job->spec['begins']])->save();
        });
    }

    /** Begins to save the rows that were tried. */
    public function start(BulkJob $job, bool $isAnswered): void
    {
        $begun = BulkJob::query()->whereKey($job->id)->where('status', BulkStatus::Tried)->update([
            'status' => BulkStatus::Waiting, 'answered' => $isAnswered, 'done' => 0, 'refused' => 0, 'reached' => $job->spec['begins'],
        ]);
        if ($begun === 0) {
            throw new DomainError('wrong_status', Words::say('It has to be tried first.'), RefusedFor::Conflict);
        }
        $job->refresh();
    }

    private function mustBe(BulkJob $job, BulkStatus $status): void
    {
        if ($job->status !== $status || $job->kind !== BulkKind::Import) {
            throw new DomainError('wrong_status', Words::say('It has begun already.'), RefusedFor::Conflict);
        }
    }

    /** @param  array<int, string>  $taken */
    private static function isMissed(Field $field, array $taken): bool
    {
        return $field->required && $field->isSettable() && $field->default === null && ! in_array($field->name, $taken, true);
    }

    /**
     * By what records are likely to be known.
     *
     * @param  array<int, string>  $fields
     */
    private static function likelyKey(RecordType $type, array $fields): ?string
    {
        foreach ($fields as $name) {
            if ($name === ColumnGuess::NUMBER || $type->field($name)?->unique === true) {
                return $name;
            }
        }

        return null;
    }
}
