<?php

declare(strict_types=1);

namespace App\Models\Lists;

use App\Models\Casts\Json;
use App\Models\LedgerModel;
use App\Models\People\Person;
use App\Models\Shared;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * A way to look at a list, kept under a name.
 *
 * @property int $id
 * @property int $version
 * @property string $record_type
 * @property string $name
 * @property int $owner_id
 * @property Shared $shared
 * @property ?string $team with which it is shared
 * @property array<array-key, mixed> $definition
 * @property-read Person $owner
 */
final class SavedView extends LedgerModel
{
    protected $table = 'views';

    protected $casts = [
        'version' => 'integer',
        'owner_id' => 'integer',
        'shared' => Shared::class,
        'definition' => Json::class,
    ];

    /** @return BelongsTo<Person, $this> */
    public function owner(): BelongsTo
    {
        return $this->belongsTo(Person::class, 'owner_id', 'id');
    }

    /**
     * Those that somebody has, or that are shared with them.
     *
     * @param  Builder<static>  $query
     * @return Builder<static>
     */
    public function scopeFor(Builder $query, Person $person): Builder
    {
        return $query->where(static fn (Builder $either): Builder => $either->where('owner_id', $person->id)
            ->orWhere('shared', Shared::Everybody)
            ->when($person->team !== '', static fn (Builder $views): Builder => $views->orWhere(
                static fn (Builder $team): Builder => $team->where('shared', Shared::Team)->where('team', $person->team),
            )));
    }
}
