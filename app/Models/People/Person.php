<?php

declare(strict_types=1);

namespace App\Models\People;

use App\Models\Access\HasRights;
use App\Models\Casts\Instant;
use App\Models\GivesRows;
use App\Models\Outbound\NoticeKind;
use App\Models\Outbound\NoticeWay;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Foundation\Auth\User as Authenticatable;
use Laravel\Sanctum\HasApiTokens;
use Laravel\Sanctum\PersonalAccessToken;

/**
 * Someone who signs in.
 *
 * @property int $id
 * @property string $handle
 * @property string $name
 * @property string $email
 * @property string $password
 * @property string $role by its name
 * @property string $team
 * @property ?\DateTimeImmutable $notices_seen_at
 * @property ?array<string, string> $notice_ways by which way they hear of what happens for them, by its kind
 * @property ?\DateTimeImmutable $notices_since when they chose those ways
 * @property ?\DateTimeImmutable $notices_sent_until up to when letters were written at once
 * @property ?\DateTimeImmutable $morning_sent_at
 * @property ?string $language in which they read the application; null for that of their browser
 * @property ?array{scheme?: ?string, contrast?: ?string, toured?: bool} $preferences how they want the screens
 * @property string $time_zone
 * @property ?int $manager_id
 * @property bool $active
 * @property string $phone
 * @property ?int $calendar_id
 * @property ?string $feed
 * @property ?string $sign_off_limit
 * @property ?array<string, string> $sign_off_limits
 * @property ?int $deputy_id
 * @property bool $away
 * @property ?\DateTimeImmutable $joined_at when they first chose a password; null while they are only invited
 * @property ?string $second_factor what their authenticator application counts with; null for none
 * @property int $second_factor_step the last step whose code was taken
 * @property ?list<string> $recovery_codes hashes of those that are left
 * @property ?int $stand_in_id
 * @property-read ?self $manager
 * @property-read ?self $deputy
 */
final class Person extends Authenticatable
{
    use GivesRows;
    use HasApiTokens;
    use HasRights;

    public $timestamps = false;

    protected $table = 'people';

    protected $guarded = [];

    protected $hidden = ['password', 'remember_token', 'second_factor', 'recovery_codes'];

    protected $casts = [
        'notices_seen_at' => Instant::class,
        'notice_ways' => 'array',
        'notices_since' => Instant::class,
        'notices_sent_until' => Instant::class,
        'morning_sent_at' => Instant::class,
        'password' => 'hashed',
        'active' => 'boolean',
        'away' => 'boolean',
        'sign_off_limits' => 'array',
        'joined_at' => Instant::class,
        'second_factor' => 'encrypted',
        'second_factor_step' => 'integer',
        'recovery_codes' => 'array',
        'preferences' => 'array',
    ];

    /** By which way they hear of something. */
    public function hearsOf(NoticeKind $kind): NoticeWay
    {
        return NoticeWay::tryFrom($this->notice_ways[$kind->value] ?? '') ?? NoticeWay::Bell;
    }

    /** @return list<NoticeKind> what they hear of by a way */
    public function noticesBy(NoticeWay $way): array
    {
        return array_values(array_filter(NoticeKind::cases(), fn (NoticeKind $kind): bool => $this->hearsOf($kind) === $way));
    }

    /** @return BelongsTo<self, $this> */
    public function manager(): BelongsTo
    {
        return $this->belongsTo(self::class, 'manager_id', 'id');
    }

    /** @return BelongsTo<self, $this> who stands in for them while they are absent, unless an absence names somebody else */
    public function deputy(): BelongsTo
    {
        return $this->belongsTo(self::class, 'deputy_id', 'id');
    }

    /** Whether this request comes from a script, with a token. */
    public function isByToken(): bool
    {
        /** @var mixed $token a session has a passing one */
        $token = $this->currentAccessToken();

        return $token instanceof PersonalAccessToken;
    }
}
