<?php

declare(strict_types=1);

namespace App\Models\Slips;

use App\Models\LedgerModel;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Database\Eloquent\Relations\HasOne;

/**
 * A reply slip that rules use by its name; what it shows and asks stands in versions.
 *
 * @property int $id
 * @property string $record_type
 * @property string $name
 * @property int $version
 * @property-read SlipFormVersion $currentVersion
 */
final class SlipForm extends LedgerModel
{
    protected $table = 'slip_forms';

    protected $casts = [
        'version' => 'integer',
    ];

    /** @return HasOne<SlipFormVersion, $this> as it reads now */
    public function currentVersion(): HasOne
    {
        return $this->hasOne(SlipFormVersion::class, 'form_id')->ofMany('number', 'max');
    }

    /** @return HasMany<SlipFormVersion, $this> */
    public function versions(): HasMany
    {
        return $this->hasMany(SlipFormVersion::class, 'form_id');
    }
}
