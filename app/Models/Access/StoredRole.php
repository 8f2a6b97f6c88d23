<?php

declare(strict_types=1);

namespace App\Models\Access;

use App\Models\LedgerModel;
use VividLedger\Rights\Role;
use VividLedger\Rights\RoleFile;

/**
 * A role, and what everybody who has it may do.
 *
 * @property string $name
 * @property int $position
 * @property int $version
 * @property array<array-key, mixed> $file as RoleFile writes it
 */
final class StoredRole extends LedgerModel
{
    public $incrementing = false;

    protected $table = 'roles';

    protected $primaryKey = 'name';

    protected $keyType = 'string';

    protected $casts = ['file' => 'array', 'position' => 'integer', 'version' => 'integer'];

    /** What a role says, asked by every request. */
    public static function called(string $name): Role
    {
        $file = self::rows()->where('name', $name)->value('file');

        return is_string($file) ? RoleFile::kept($name, (array) json_decode($file, true)) : new Role($name, $name);
    }

    public function role(): Role
    {
        return RoleFile::kept($this->name, $this->file);
    }
}
