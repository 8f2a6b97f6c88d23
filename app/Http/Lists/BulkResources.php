<?php

declare(strict_types=1);

namespace App\Http\Lists;

use App\Models\Import\RowResult;
use App\Models\Lists\BulkJob;
use App\Models\Lists\BulkRow;
use App\Store\Types\SchemaStore;
use VividLedger\Record\Value;

/** Work on many records, as the API tells of it. */
final readonly class BulkResources
{
    private const PROBLEMS = 100;

    public function __construct(private SchemaStore $schemas)
    {
    }

    public function of(BulkJob $job): BulkResource
    {
        $type = $this->schemas->schema()->type($job->record_type);
        $rows = $job->results()->whereIn('result', [RowResult::Refused, RowResult::Kept])->orderBy('place')->limit(self::PROBLEMS)->get();

        return new BulkResource(
            id: $job->id, kind: $job->kind->value, recordType: $job->record_type, byName: $job->by->name,
            at: Value::instantText($job->at), status: $job->status->value, total: $job->total, done: $job->done, saved: $job->saved,
            refused: $job->refused, undone: $job->undone,
            problems: array_values($rows->map(static fn (BulkRow $row): BulkRowResource => new BulkRowResource(
                $row->place, $row->record_id, $row->record_id === null ? '' : ($type?->numberOf($row->record_id) ?? ''), $row->said,
            ))->all()),
        );
    }

    /**
     * @param  array{
     *     total: int, tried: int, same: int, rules: array<int, array{name: string, count: int}>, refused: array<string, int>,
     * }  $preview
     */
    public static function preview(array $preview): BulkPreviewResource
    {
        return new BulkPreviewResource(
            $preview['total'], $preview['tried'], $preview['same'], self::rules($preview['rules']), self::reasons($preview['refused']),
        );
    }

    /**
     * @param  array<int, array{name: string, count: int}>  $rules  by their ids
     * @return list<BulkRuleResource> those that fire most first
     */
    public static function rules(array $rules): array
    {
        uasort($rules, static fn (array $one, array $other): int => $other['count'] <=> $one['count']);

        return array_map(
            static fn (int $id, array $rule): BulkRuleResource => new BulkRuleResource($id, $rule['name'], $rule['count']),
            array_keys($rules), array_values($rules),
        );
    }

    /**
     * @param  array<array-key, int>  $refused  how often, by what was said
     * @return list<BulkReasonResource>
     */
    public static function reasons(array $refused): array
    {
        return array_map(
            static fn (string $said, int $count): BulkReasonResource => new BulkReasonResource($said, $count),
            array_map(strval(...), array_keys($refused)), array_values($refused),
        );
    }
}
