<?php

declare(strict_types=1);

namespace App\Models\Rules;

use App\Models\Casts\Instant;
use App\Models\Casts\Json;
use App\Models\Events\RulesChanged;
use App\Models\LedgerModel;
use App\Models\People\Person;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * A rehearsal kept as a test of a rule.
 *
 * @property int $id
 * @property int $rule_id
 * @property string $name
 * @property array<string, mixed> $script
 * @property list<array<string, mixed>> $facts
 * @property list<string> $expected
 * @property list<string>|null $actual
 * @property bool $holds
 * @property string $checked_stand
 * @property \DateTimeImmutable $kept_at
 * @property int $kept_by
 * @property ?\DateTimeImmutable $accepted_at
 * @property ?int $accepted_by
 * @property-read Person $keeper
 * @property-read ?Person $accepter
 */
final class Proof extends LedgerModel
{
    protected $table = 'proofs';

    protected $dispatchesEvents = ['created' => RulesChanged::class];

    protected $casts = [
        'rule_id' => 'integer',
        'script' => Json::class,
        'facts' => Json::class,
        'expected' => Json::class,
        'actual' => Json::class,
        'holds' => 'boolean',
        'kept_at' => Instant::class,
        'kept_by' => 'integer',
        'accepted_at' => Instant::class,
        'accepted_by' => 'integer',
    ];

    /** @return BelongsTo<StoredRule, $this> */
    public function rule(): BelongsTo
    {
        return $this->belongsTo(StoredRule::class, 'rule_id', 'id');
    }

    /** @return BelongsTo<Person, $this> */
    public function keeper(): BelongsTo
    {
        return $this->belongsTo(Person::class, 'kept_by', 'id');
    }

    /** @return BelongsTo<Person, $this> */
    public function accepter(): BelongsTo
    {
        return $this->belongsTo(Person::class, 'accepted_by', 'id');
    }
}
