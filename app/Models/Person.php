<?php

declare(strict_types=1);

namespace App\Models;

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
 */
final class Person extends Authenticatable
{
    use GivesRows;
    use HasApiTokens;

    public $timestamps = false;

    protected $table = 'people';

    protected $guarded = [];

    protected $hidden = ['password', 'remember_token'];

    protected $casts = ['role' => Role::class, 'password' => 'hashed', 'active' => 'boolean'];

    /** Whether this request comes from a script, with a token. */
    public function isByToken(): bool
    {
        /** @var mixed $token a session has a passing one */
        $token = $this->currentAccessToken();

        return $token instanceof PersonalAccessToken;
    }
}
