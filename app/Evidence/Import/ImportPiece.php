<?php

declare(strict_types=1);

namespace App\Evidence\Import;

use App\Evidence\Lists\BulkPiece;
use App\Evidence\Lists\BulkResults;
use App\Models\Import\ImportProblem;
use App\Models\Lists\BulkJob;
use App\Store\Actor;
use App\Store\Import\ImportedFile;
use App\Store\Import\ImportPlan;
use App\Store\Import\ImportRows;
use App\Store\LedgerConnection;
use App\Store\Records\RowToSave;
use App\Store\Records\SavedRow;
use App\Store\Records\SaveMany;
use App\Store\Setup\Company;
use App\Store\Types\SchemaStore;
use VividLedger\Record\CauseKind;

/** The next rows of a file become records. */
final class ImportPiece implements BulkPiece
{
    private const AT_ONCE = 200;

    /** @var ?array{int, ImportedFile} the file that was last read from, put together on this machine already */
    private ?array $open = null;

    public function __construct(
        private readonly LedgerConnection $db,
        private readonly SchemaStore $schemas,
        private readonly Company $company,
        private readonly SaveMany $save,
        private readonly BulkResults $results,
    ) {
    }

    public function piece(BulkJob $job): int
    {
        $type = $this->schemas->schema()->types[$job->record_type];
        if ($this->open === null || $this->open[0] !== $job->id) {
            $this->open = [$job->id, new ImportedFile($job)];
        }
        $file = $this->open[1];

        return $this->db->transaction(function () use ($job, $type, $file): int {
            // Whoever holds the job goes on with it; another worker that took over waits here, and sees how far it came.
            $held = BulkJob::query()->whereKey($job->id)->lockForUpdate()->firstOrFail();
            $plan = ImportPlan::of($held);
            [$rows, $reached] = $file->next($plan, $held->reached, $held->done, self::AT_ONCE);
            if ($rows === []) {
                return 0;
            }
            // What was found wrong when it was tried stays out, as it was said.
            $known = ImportProblem::query()->where('job_id', $held->id)
                ->whereBetween('row', [array_key_first($rows), array_key_last($rows)])->orderByDesc('id')->pluck('said', 'row')->all();
            $read = array_map(static fn (string $said): array => ['' => $said], $known)
                + (new ImportRows($this->schemas, $this->company, $type, $plan))->read(array_diff_key($rows, $known));
            $whole = array_filter($read, static fn (RowToSave|array $row): bool => $row instanceof RowToSave);
            $saved = $this->save->save($type, array_values($whole), new Actor($held->by_id, CauseKind::Import), $held->answered);
            $results = array_combine(array_keys($whole), $saved);
            foreach ($read as $place => $row) {
                $results[$place] ??= SavedRow::refused(null, is_array($row) ? implode(' ', $row) : '');
            }
            ksort($results);
            $this->results->note($held, $results);
            BulkJob::query()->whereKey($job->id)->update(['reached' => $reached]);

            return count($rows);
        });
    }

    /** @return iterable<array{int, list<string>, string}> the rows that did not become records: which, what they said, and why not */
    public static function leftOut(BulkJob $job): iterable
    {
        $plan = ImportPlan::of($job);
        $why = $job->results()->where('result', 'refused')->pluck('said', 'place')->all()
            + ImportProblem::query()->where('job_id', $job->id)->orderBy('row')->pluck('said', 'row')->all();
        $number = 1;
        foreach ((new ImportedFile($job))->rows($plan, $plan->begins) as [$cells]) {
            if (isset($why[++$number])) {
                yield [$number, $cells, (string) $why[$number]];
            }
        }
    }
}
