<?php

declare(strict_types=1);

namespace App\Models\Slips;

use App\Models\Casts\Instant;
use App\Models\Casts\Json;
use App\Models\LedgerModel;
use App\Models\People\Person;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * A reply slip as it once read.
 *
 * @property int $id
 * @property int $form_id
 * @property int $number
 * @property string $subject
 * @property string $body
 * @property list<array<string, mixed>> $asks
 * @property \DateTimeImmutable $at
 * @property int $by_id
 * @property-read Person $author
 */
final class SlipFormVersion extends LedgerModel
{
    protected $table = 'slip_form_versions';

    protected $casts = [
        'form_id' => 'integer',
        'number' => 'integer',
        'asks' => Json::class,
        'at' => Instant::class,
        'by_id' => 'integer',
    ];

    /** @return BelongsTo<Person, $this> */
    public function author(): BelongsTo
    {
        return $this->belongsTo(Person::class, 'by_id', 'id');
    }

    /** @return BelongsTo<SlipForm, $this> */
    public function form(): BelongsTo
    {
        return $this->belongsTo(SlipForm::class, 'form_id', 'id');
    }
}
