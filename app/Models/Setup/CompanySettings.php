<?php

declare(strict_types=1);

namespace App\Models\Setup;

use App\Models\Casts\Instant;
use App\Models\Events\RulesChanged;
use App\Models\LedgerModel;
use App\Models\People\Person;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * The few settings of the company: one row.
 *
 * @property int $id
 * @property string $name
 * @property string $time_zone
 * @property ?int $fallback_person_id
 * @property int $clock_offset seconds that the house clock is ahead
 * @property ?int $clock_held where it stands while it is turned, in seconds since 1970
 * @property ?int $calendar_id
 * @property int $kept_version
 * @property int $sealing_upto entries up to this number are sealed next
 * @property ?\DateTimeImmutable $sealing_since when that was the last number there was
 * @property int $schema_version counts up whenever a record type changes
 */
final class CompanySettings extends LedgerModel
{
    protected $table = 'company';

    protected $casts = [
        'fallback_person_id' => 'integer',
        'clock_offset' => 'integer',
        'clock_held' => 'integer',
        'calendar_id' => 'integer',
        'kept_version' => 'integer',
        'schema_version' => 'integer',
        'sealing_upto' => 'integer',
        'sealing_since' => Instant::class,
    ];

    /** @return BelongsTo<Person, $this> */
    public function fallbackPerson(): BelongsTo
    {
        return $this->belongsTo(Person::class, 'fallback_person_id', 'id');
    }

    /** The one row there is. */
    public const ID = 1;

    /** Counts up with whatever programs remember of the company: its record types, and all that App\Store\Remembered names. */
    public static function versions(): string
    {
        $settings = self::rows()->where('id', self::ID)->first(['schema_version', 'kept_version']);

        return $settings === null ? '' : "{$settings->schema_version} {$settings->kept_version}";
    }

    /** Something that programs remember has changed (App\Store\Remembered says what), so that none goes on with what was there before. */
    public static function keptChanged(): void
    {
        self::query()->whereKey(self::ID)->increment('kept_version');
        event(new RulesChanged);
    }
}
