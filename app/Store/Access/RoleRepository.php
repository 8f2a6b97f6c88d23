<?php

declare(strict_types=1);

namespace App\Store\Access;

use App\Models\Access\StoredRole;
use App\Models\People\Person;
use App\Store\DomainError;
use App\Store\RefusedFor;
use App\Store\Types\SchemaStore;
use App\Store\Types\Slug;
use Illuminate\Database\Connection;
use VividLedger\Rights\Role;
use VividLedger\Rights\RoleFile;
use VividLedger\Words\Words;

/** Roles, made and changed; whoever has one may what it says from the next request on. */
final readonly class RoleRepository
{
    private const MOST = 100;

    public function __construct(private Connection $db, private SchemaStore $schemas, private AccessEntries $entries)
    {
    }

    /**
     * @param  array<array-key, mixed>  $file
     *
     * @throws DomainError with a problem at each place
     */
    public function read(string $name, array $file): Role
    {
        [$role, $problems] = RoleFile::read($name, $file, $this->schemas->schema());
        if ($problems !== []) {
            throw new DomainError('invalid_values', $problems[0]['message'], RefusedFor::Invalid, $problems);
        }

        return $role;
    }

    /**
     * @param  array<array-key, mixed>  $file
     * @param  ?string  $name  where it is carried over from another company, under its name there
     */
    public function add(array $file, int $by, ?string $name = null): StoredRole
    {
        return $this->db->transaction(function () use ($file, $by, $name): StoredRole {
            $kept = StoredRole::query()->lockForUpdate()->get();
            if ($kept->count() >= self::MOST) {
                throw DomainError::at('/label', Words::say('At most {most} roles.', most: self::MOST), RefusedFor::Conflict);
            }
            $role = $this->read($name ?? Slug::of((string) ($file['label'] ?? 'role'), array_values($kept->pluck('name')->all())), $file);
            self::mustBeTheOnly($role, ...$kept->all());
            $stored = StoredRole::query()->create([
                'name' => $role->name, 'position' => $kept->count(), 'version' => 1, 'file' => RoleFile::write($role),
            ]);
            $this->entries->write('role_added', $by, ['title' => $role->label, 'role' => [null, $stored->file]]);

            return $stored;
        });
    }

    /** @param  array<array-key, mixed>  $file */
    public function change(string $name, int $version, array $file, int $by): StoredRole
    {
        return $this->db->transaction(function () use ($name, $version, $file, $by): StoredRole {
            $stored = self::held($name);
            if ($stored->version !== $version) {
                throw new DomainError('stale_version', Words::say('Somebody else has changed this role meanwhile. Look at it again.'),
                    RefusedFor::Conflict);
            }
            $role = $this->read($name, $file);
            self::mustBeTheOnly($role, ...StoredRole::query()->whereKeyNot($name)->get()->all());
            $before = RoleFile::write($stored->role());
            $after = RoleFile::write($role);
            if ($before !== $after) {
                $stored->update(['file' => $after, 'version' => $version + 1]);
                $this->entries->write('role_changed', $by, ['title' => $role->label, 'role' => [$before, $after]]);
            }

            return $stored;
        });
    }

    public function remove(string $name, int $by): void
    {
        $this->db->transaction(function () use ($name, $by): void {
            $stored = self::held($name);
            $people = Person::query()->where('role', $name)->lockForUpdate()->orderBy('name')->limit(4)->pluck('name')->all();
            if ($people !== []) {
                $who = implode(', ', array_slice($people, 0, 3)).(count($people) > 3 ? ' and others' : '');
                throw new DomainError('in_use', Words::say('{who} have this role. Give them another first.', who: $who),
                    RefusedFor::Conflict);
            }
            $stored->delete();
            $this->entries->write('role_removed', $by, ['title' => $stored->role()->label]);
        });
    }

    private static function held(string $name): StoredRole
    {
        if ($name === Role::ADMINISTRATOR) {
            throw new DomainError('not_possible', Words::say('Administrators may everything, always: so nobody is shut out for good.'),
                RefusedFor::Conflict);
        }

        return StoredRole::query()->lockForUpdate()->find($name)
            ?? throw DomainError::missing(Words::say('There is no role ‘{name}’.', name: $name));
    }

    private static function mustBeTheOnly(Role $role, StoredRole ...$others): void
    {
        foreach ($others as $other) {
            if (mb_strtolower($other->role()->label) === mb_strtolower($role->label)) {
                throw DomainError::at('/label', Words::say('There is a role “{role}” already.', role: $role->label), RefusedFor::Conflict);
            }
        }
    }
}
