<?php

declare(strict_types=1);

namespace App\Evidence\Import;

use App\Evidence\Lists\BulkPiece;
use App\Evidence\Lists\BulkPreview;
use App\Models\Columns;
use App\Models\Import\ImportProblem;
use App\Models\Lists\BulkJob;
use App\Models\Lists\BulkStatus;
use App\Store\Actor;
use App\Store\DomainError;
use App\Store\Import\ImportedFile;
use App\Store\Import\ImportPlan;
use App\Store\Import\ImportRows;
use App\Store\LedgerConnection;
use App\Store\Records\RecordInput;
use App\Store\Records\RowToSave;
use App\Store\Setup\Company;
use App\Store\Sql\Batch;
use App\Store\Sql\RecordSql;
use App\Store\Types\SchemaStore;
use VividLedger\Record\CauseKind;
use VividLedger\Schema\RecordType;

/** The next rows of a file are read and checked as if they were saved; every problem is noted at its cell, and nothing is written. */
final class ImportTrial implements BulkPiece
{
    private const AT_ONCE = 500;

    /** Nobody reads more; they are counted all the same. */
    private const MOST_PROBLEMS = 5_000;

    private const LONGEST_SAID = 300;

    /** @var ?array{int, ImportedFile, ImportRows} what is being gone through */
    private ?array $open = null;

    public function __construct(
        private readonly LedgerConnection $db,
        private readonly SchemaStore $schemas,
        private readonly Company $company,
        private readonly RecordInput $input,
        private readonly BulkPreview $preview,
    ) {
    }

    public function piece(BulkJob $job): int
    {
        $type = $this->schemas->schema()->types[$job->record_type];
        $plan = ImportPlan::of($job);
        if ($this->open === null || $this->open[0] !== $job->id || $job->done === 0) {
            $this->open = [$job->id, new ImportedFile($job), new ImportRows($this->schemas, $this->company, $type, $plan)];
        }
        [, $file, $reader] = $this->open;
        [$rows, $reached] = $file->next($plan, $job->reached, $job->done, self::AT_ONCE);
        if ($rows === []) {
            BulkJob::query()->whereKey($job->id)->where('status', BulkStatus::Trying)->update(['status' => BulkStatus::Tried]);

            return 0;
        }
        [$problems, $spec, $good] = $this->checked($type, $reader->read($rows), $job->spec);
        $problems = array_map(
            static fn (array $one): array => $one + ['cell' => self::cell($plan, $one['field'], $rows[$one['row']])], $problems,
        );
        if ($job->done === 0) {
            $tried = $this->preview->rows($type, array_slice($good, 0, BulkPreview::MOST), new Actor($job->by_id, CauseKind::Import));
            $spec['rules'] = $tried['rules'];
            $spec['tried'] = $tried['tried'];
            $spec['refusals'] = $tried['refused'];
        }
        $wrong = array_unique(array_column($problems, 'row'));
        $this->db->transaction(static function () use ($job, $problems, $spec, $reached, $rows, $wrong): void {
            $room = max(0, self::MOST_PROBLEMS - ImportProblem::query()->where('job_id', $job->id)->count());
            Batch::insert(ImportProblem::class, array_map(
                static fn (array $problem): array => ['job_id' => $job->id] + $problem, array_slice($problems, 0, $room),
            ));
            BulkJob::query()->whereKey($job->id)->where('status', BulkStatus::Trying)->where('done', $job->done)->update([
                'spec' => Columns::json($spec), 'reached' => $reached, 'done' => $job->done + count($rows),
                'refused' => $job->refused + count($wrong),
            ]);
        });

        return count($rows);
    }

    /**
     * @param  array<int, RowToSave|array<string, string>>  $read
     * @param  array<string, mixed>  $spec
     * @return array{list<array{row: int, field: string, said: string}>, array<string, mixed>, list<RowToSave>}
     */
    private function checked(RecordType $type, array $read, array $spec): array
    {
        $whole = array_filter($read, static fn (RowToSave|array $row): bool => $row instanceof RowToSave);
        $ids = array_values(array_filter(array_map(static fn (RowToSave $row): ?int => $row->id, $whole)));
        $there = RecordSql::records($type, $ids);
        $checked = array_combine(array_keys($whole), $this->input->many($type, array_values($whole), $there));
        [$problems, $good] = [[], []];
        foreach ($read as $number => $row) {
            if (is_array($row)) {
                foreach ($row as $field => $said) {
                    $problems[] = self::problem($number, $field, $said);
                }

                continue;
            }
            $result = $checked[$number];
            if ($result instanceof DomainError) {
                foreach ($result->problems === [] ? [['at' => '', 'message' => $result->getMessage()]] : $result->problems as $one) {
                    $problems[] = self::problem($number, (string) preg_replace('#^/values/#', '', $one['at']), $one['message']);
                }

                continue;
            }
            $spec[$row->id === null ? 'create' : ($result === [] ? 'same' : 'update')]++;
            $good[] = $row;
        }

        return [$problems, $spec, $good];
    }

    /** @param  list<string>  $cells */
    private static function cell(ImportPlan $plan, string $field, array $cells): string
    {
        $place = array_search($field, $plan->fields, true);

        return $place === false ? '' : mb_substr(trim($cells[$place] ?? ''), 0, self::LONGEST_SAID);
    }

    /** @return array{row: int, field: string, said: string} */
    private static function problem(int $row, string $field, string $said): array
    {
        return ['row' => $row, 'field' => $field, 'said' => mb_substr($said, 0, self::LONGEST_SAID)];
    }
}
