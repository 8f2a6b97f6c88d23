<?php

declare(strict_types=1);

namespace App\Models\Records;

use App\Models\Casts\Instant;
use App\Models\LedgerModel;
use App\Models\People\Person;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * Somebody who was named in a comment.
 *
 * @property int $id
 * @property int $comment_id
 * @property int $person_id
 * @property ?int $by_id
 * @property string $record_type
 * @property int $record_id
 * @property string $text how the comment begins
 * @property \DateTimeImmutable $at
 * @property-read ?Person $by
 */
final class Mention extends LedgerModel
{
    protected $table = 'mentions';

    protected $casts = [
        'comment_id' => 'integer',
        'person_id' => 'integer',
        'by_id' => 'integer',
        'record_id' => 'integer',
        'at' => Instant::class,
    ];

    /** @return BelongsTo<Person, $this> */
    public function by(): BelongsTo
    {
        return $this->belongsTo(Person::class, 'by_id', 'id');
    }
}
