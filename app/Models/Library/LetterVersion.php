<?php

declare(strict_types=1);

namespace App\Models\Library;

use App\Models\Casts\Instant;
use App\Models\LedgerModel;
use App\Models\People\Person;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * A letter as it once read.
 *
 * @property int $id
 * @property int $letter_id
 * @property int $number
 * @property string $subject
 * @property string $body
 * @property \DateTimeImmutable $at
 * @property int $by_id
 * @property-read Person $author
 */
final class LetterVersion extends LedgerModel
{
    protected $table = 'letter_versions';

    protected $casts = [
        'letter_id' => 'integer',
        'number' => 'integer',
        'at' => Instant::class,
        'by_id' => 'integer',
    ];

    /** @return BelongsTo<Person, $this> */
    public function author(): BelongsTo
    {
        return $this->belongsTo(Person::class, 'by_id', 'id');
    }

    /** @return BelongsTo<StoredLetter, $this> */
    public function letter(): BelongsTo
    {
        return $this->belongsTo(StoredLetter::class, 'letter_id', 'id');
    }
}
