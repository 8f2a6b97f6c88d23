<?php

declare(strict_types=1);

namespace App\Models;

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
 * @property Role $role
 * @property string $team
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
 * @property ?int $stand_in_id
 * @property-read ?self $manager
 * @property-read ?self $deputy
 */
final class Person extends Authenticatable
{
    use GivesRows;
    use HasApiTokens;

    public $timestamps = false;

    protected $table = 'people';

    protected $guarded = [];

    protected $hidden = ['password', 'remember_token'];

    protected $casts = [
        'role' => Role::class,
        'password' => 'hashed',
        'active' => 'boolean',
        'away' => 'boolean',
        'sign_off_limits' => 'array',
    ];

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
