<?php

declare(strict_types=1);

namespace App\Models\Library;

use App\Models\LedgerModel;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Database\Eloquent\Relations\HasOne;

/**
 * A letter that rules use by its name; its text stands in versions.
 *
 * @property int $id
 * @property string $record_type
 * @property string $name
 * @property int $version
 * @property-read LetterVersion $currentVersion
 */
final class StoredLetter extends LedgerModel
{
    protected $table = 'letters';

    protected $casts = [
        'version' => 'integer',
    ];

    /** @return HasOne<LetterVersion, $this> as it reads now */
    public function currentVersion(): HasOne
    {
        return $this->hasOne(LetterVersion::class, 'letter_id')->ofMany('number', 'max');
    }

    /** @return HasMany<LetterVersion, $this> */
    public function versions(): HasMany
    {
        return $this->hasMany(LetterVersion::class, 'letter_id');
    }
}
