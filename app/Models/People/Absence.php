<?php

declare(strict_types=1);

namespace App\Models\People;

use App\Models\Casts\Instant;
use App\Models\LedgerModel;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * When somebody is not at work, and who stands in for them then.
 *
 * @property int $id
 * @property int $person_id
 * @property ?int $deputy_id null for their usual deputy
 * @property \DateTimeImmutable $starts_at
 * @property \DateTimeImmutable $ends_at
 * @property AbsenceState $state
 * @property-read Person $person
 * @property-read ?Person $deputy
 */
final class Absence extends LedgerModel
{
    protected $table = 'absences';

    protected $casts = [
        'person_id' => 'integer',
        'deputy_id' => 'integer',
        'starts_at' => Instant::class,
        'ends_at' => Instant::class,
        'state' => AbsenceState::class,
    ];

    /** @return BelongsTo<Person, $this> */
    public function person(): BelongsTo
    {
        return $this->belongsTo(Person::class, 'person_id', 'id');
    }

    /** @return BelongsTo<Person, $this> */
    public function deputy(): BelongsTo
    {
        return $this->belongsTo(Person::class, 'deputy_id', 'id');
    }
}
