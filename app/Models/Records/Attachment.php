<?php

declare(strict_types=1);

namespace App\Models\Records;

use App\Models\Casts\Instant;
use App\Models\LedgerModel;
use App\Models\People\Person;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasOne;

/**
 * A file on a record; what is in it stands apart, so that a list reads none of it.
 *
 * @property int $id
 * @property string $record_type
 * @property int $record_id
 * @property string $name
 * @property string $media_type
 * @property int $bytes
 * @property ?int $author_id
 * @property \DateTimeImmutable $at
 * @property-read ?Person $author
 * @property-read AttachmentContent $stored
 */
final class Attachment extends LedgerModel
{
    protected $table = 'files';

    protected $casts = [
        'record_id' => 'integer',
        'bytes' => 'integer',
        'author_id' => 'integer',
        'at' => Instant::class,
    ];

    /** @return HasOne<AttachmentContent, $this> */
    public function stored(): HasOne
    {
        return $this->hasOne(AttachmentContent::class, 'file_id');
    }

    /** @return BelongsTo<Person, $this> */
    public function author(): BelongsTo
    {
        return $this->belongsTo(Person::class, 'author_id', 'id');
    }

    /**
     * What stands on one record.
     *
     * @param  Builder<static>  $query
     * @return Builder<static>
     */
    public function scopeAbout(Builder $query, string $type, int $id): Builder
    {
        return $query->where('record_type', $type)->where('record_id', $id);
    }
}
