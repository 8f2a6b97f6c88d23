<?php

declare(strict_types=1);

namespace App\Models\Outbound;

use App\Models\Casts\Instant;
use App\Models\Casts\Json;
use App\Models\LedgerModel;
use App\Models\Rules\StoredRule;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * A call of another system, on its way or ended. Its key names it for the other side, however often it is tried.
 *
 * @property int $id
 * @property string $key
 * @property string $endpoint  by its name
 * @property int $rule_id
 * @property int $page
 * @property int $place
 * @property string $line_key
 * @property ?int $run_id
 * @property string $record_type
 * @property int $record_id
 * @property int $entry_id
 * @property array<array-key, mixed> $payload
 * @property CallStatus $status
 * @property int $tries
 * @property int $unsure  how often the other side may have taken it without saying so
 * @property \DateTimeImmutable $made_at  by the house clock; all that follows by the machine's own time
 * @property \DateTimeImmutable $next_try_at
 * @property ?\DateTimeImmutable $tried_at
 * @property ?\DateTimeImmutable $leased_until
 * @property ?string $leased_by
 * @property ?\DateTimeImmutable $ended_at  by the house clock
 * @property ?int $answer_status
 * @property ?string $answer
 * @property string $trouble
 * @property-read ?StoredRule $rule
 */
final class StoredCall extends LedgerModel
{
    protected $table = 'calls';

    protected $casts = [
        'rule_id' => 'integer',
        'page' => 'integer',
        'place' => 'integer',
        'run_id' => 'integer',
        'record_id' => 'integer',
        'entry_id' => 'integer',
        'payload' => Json::class,
        'status' => CallStatus::class,
        'tries' => 'integer',
        'unsure' => 'integer',
        'made_at' => Instant::class,
        'next_try_at' => Instant::class,
        'tried_at' => Instant::class,
        'leased_until' => Instant::class,
        'ended_at' => Instant::class,
        'answer_status' => 'integer',
    ];

    /** @return BelongsTo<StoredRule, $this> */
    public function rule(): BelongsTo
    {
        return $this->belongsTo(StoredRule::class, 'rule_id', 'id');
    }
}
