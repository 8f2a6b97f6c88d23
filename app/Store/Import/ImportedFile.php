<?php

declare(strict_types=1);

namespace App\Store\Import;

use App\Models\Import\ImportFilePiece;
use App\Models\Lists\BulkJob;
use App\Store\CsvLine;
use App\Store\DomainError;
use App\Store\RefusedFor;
use VividLedger\Import\FileForm;
use VividLedger\Words\Words;

/**
 * The rows of a file that is kept in pieces. Whoever reads it puts it together on the machine it works on, once, in UTF-8; what has been
 * read is told by how far into that, so that another machine goes on from there.
 */
final class ImportedFile
{
    /** More cells than that, or a cell with more letters, is a quote that was never closed. */
    private const LONGEST_ROW = 1_000_000;

    private const SAMPLE = 65_536;

    /** @var ?resource */
    private $stream = null;

    private string $path = '';

    public function __construct(private readonly BulkJob $job)
    {
    }

    public function __destruct()
    {
        if (is_resource($this->stream)) {
            fclose($this->stream);
        }
        if ($this->path !== '' && is_file($this->path)) {
            unlink($this->path);
        }
    }

    /** How the file is written, by its beginning. */
    public function form(): FileForm
    {
        $first = '';
        for ($place = 0; strlen($first) < self::SAMPLE; $place++) {
            $content = ImportFilePiece::query()->where('job_id', $this->job->id)->where('place', $place)->value('content');
            if ($content === null) {
                break;
            }
            $first .= (string) $content;
        }

        return FileForm::of(substr($first, 0, self::SAMPLE)) ?? throw new DomainError(
            'no_table', Words::say('This is no table of text. Save it as CSV, or as an Excel workbook (.xlsx).'), RefusedFor::Invalid,
        );
    }

    /**
     * @param  int  $from  how far into the file
     * @return iterable<array{list<string>, int}> the cells of each row, and how far the file is read behind it; empty rows are left out
     *
     * @throws DomainError where it is malformed
     */
    public function rows(ImportPlan $plan, int $from = 0): iterable
    {
        $stream = $this->open($plan);
        fseek($stream, $from);
        while (($cells = fgetcsv($stream, self::LONGEST_ROW, $plan->delimiter, '"', '')) !== false) {
            $reached = (int) ftell($stream);
            if ($reached - $from >= self::LONGEST_ROW - 1) {
                throw new DomainError('no_table',
                    Words::say('A row has more than a million letters: a quote was opened and never closed.'));
            }
            $from = $reached;
            $cells = array_map(static fn (?string $cell): string => CsvLine::read((string) $cell), $cells);
            if (array_filter($cells, static fn (string $cell): bool => trim($cell) !== '') !== []) {
                yield [$cells, $reached];
            }
        }
    }

    /**
     * The next rows of it.
     *
     * @param  int  $done  how many were read before
     * @return array{array<int, list<string>>, int} the cells by the number of the row, and how far the file is read behind them
     *
     * @throws DomainError where it is malformed
     */
    public function next(ImportPlan $plan, int $from, int $done, int $most): array
    {
        // The first row of the file names the columns.
        [$rows, $number] = [[], $done + 1];
        foreach ($this->rows($plan, $from) as [$cells, $from]) {
            $rows[++$number] = $cells;
            if (count($rows) === $most) {
                break;
            }
        }

        return [$rows, $from];
    }

    /** @return resource */
    private function open(ImportPlan $plan)
    {
        if ($this->stream !== null) {
            return $this->stream;
        }
        $this->path = (string) tempnam(sys_get_temp_dir(), 'vivid-ledger-import-');
        $out = fopen($this->path, 'r+');
        if ($out === false) {
            throw new \RuntimeException('There is no room to put the file together.');
        }
        if ($plan->encoding !== 'UTF-8') {
            $filter = stream_filter_append($out, "convert.iconv.{$plan->encoding}/UTF-8//IGNORE", STREAM_FILTER_WRITE);
        }
        $places = ImportFilePiece::query()->where('job_id', $this->job->id)->orderBy('place')->pluck('place');
        foreach ($places as $place) {
            $content = (string) ImportFilePiece::query()->where('job_id', $this->job->id)->where('place', $place)->value('content');
            $content = $place === 0 ? substr($content, $plan->skips) : $content;
            fwrite($out, $plan->endsWithReturns ? strtr($content, "\r", "\n") : $content);
        }
        if (isset($filter) && is_resource($filter)) {
            stream_filter_remove($filter);
        }
        rewind($out);

        return $this->stream = $out;
    }
}
