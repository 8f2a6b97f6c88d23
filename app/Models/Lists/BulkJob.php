<?php

declare(strict_types=1);

namespace App\Models\Lists;

use App\Models\Casts\Instant;
use App\Models\Casts\Json;
use App\Models\Import\ImportProblem;
use App\Models\LedgerModel;
use App\Models\People\Person;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;

/**
 * Work on many records that goes on by itself.
 *
 * @property int $id
 * @property BulkKind $kind
 * @property string $record_type
 * @property int $by_id
 * @property \DateTimeImmutable $at
 * @property BulkStatus $status
 * @property array<string, mixed> $spec what is to be done
 * @property bool $answered whether rules start
 * @property int $total
 * @property int $done
 * @property int $saved
 * @property int $refused
 * @property int $undone
 * @property int $reached how far the source is read
 * @property ?\DateTimeImmutable $leased_until
 * @property-read Person $by
 */
final class BulkJob extends LedgerModel
{
    protected $table = 'bulk_jobs';

    protected $casts = [
        'kind' => BulkKind::class,
        'by_id' => 'integer',
        'at' => Instant::class,
        'status' => BulkStatus::class,
        'spec' => Json::class,
        'answered' => 'boolean',
        'total' => 'integer',
        'done' => 'integer',
        'saved' => 'integer',
        'refused' => 'integer',
        'undone' => 'integer',
        'reached' => 'integer',
        'leased_until' => Instant::class,
    ];

    /** @return HasMany<BulkRow, $this> */
    public function results(): HasMany
    {
        return $this->hasMany(BulkRow::class, 'job_id');
    }

    /** @return HasMany<ImportProblem, $this> */
    public function problems(): HasMany
    {
        return $this->hasMany(ImportProblem::class, 'job_id');
    }

    /** @return BelongsTo<Person, $this> */
    public function by(): BelongsTo
    {
        return $this->belongsTo(Person::class, 'by_id', 'id');
    }
}
