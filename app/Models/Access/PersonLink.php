<?php

declare(strict_types=1);

namespace App\Models\Access;

use App\Models\Casts\Instant;
use App\Models\LedgerModel;
use App\Models\Outbound\LinkKind;
use App\Models\People\Person;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * A link that lets somebody in without a password, once; only its hash is kept.
 *
 * @property int $id
 * @property ?int $person_id null where there is nobody yet
 * @property LinkKind $kind
 * @property string $hash
 * @property \DateTimeImmutable $expires_at
 * @property ?\DateTimeImmutable $used_at
 * @property-read ?Person $person
 */
final class PersonLink extends LedgerModel
{
    protected $table = 'person_links';

    protected $casts = [
        'person_id' => 'integer',
        'kind' => LinkKind::class,
        'expires_at' => Instant::class,
        'used_at' => Instant::class,
    ];

    /** @return BelongsTo<Person, $this> */
    public function person(): BelongsTo
    {
        return $this->belongsTo(Person::class, 'person_id', 'id');
    }
}
