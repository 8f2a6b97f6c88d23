<?php

declare(strict_types=1);

namespace App\Evidence\Setup;

use App\Models\Access\StoredRole;
use App\Store\Access\RoleRepository;
use App\Store\Types\SchemaStore;
use VividLedger\Rights\Act;
use VividLedger\Rights\Duty;
use VividLedger\Rights\FieldAccess;
use VividLedger\Rights\Reach;
use VividLedger\Rights\Role;
use VividLedger\Rights\RoleDifference;
use VividLedger\Rights\RoleFile;

/** Roles, but for that of administrators, which is everywhere the same. */
final class RolePart implements SetupPart
{
    public function __construct(private readonly RoleRepository $keeper, private readonly SchemaStore $schemas)
    {
    }

    public static function folder(): string
    {
        return 'roles';
    }

    public static function isInOrder(): bool
    {
        return true;
    }

    public static function schema(): array
    {
        $byName = static fn (array $of): array => ['type' => 'object', 'additionalProperties' => $of];

        return ['required' => ['name', 'label', 'duties', 'reaches', 'fields'], 'properties' => [
            'name' => ['type' => 'string', 'pattern' => '^[a-z][a-z0-9_]{0,39}$'], 'label' => ['type' => 'string', 'maxLength' => 60],
            'duties' => ['type' => 'array', 'items' => ['enum' => array_column(Duty::cases(), 'value')]],
            'reaches' => $byName($byName(['enum' => array_column(Reach::cases(), 'value')])
                + ['propertyNames' => ['maxLength' => 64]]),
            'fields' => $byName($byName(['enum' => array_column(FieldAccess::cases(), 'value')])),
        ], 'description' => 'Acts: '.implode(', ', array_column(Act::cases(), 'value')).'.'];
    }

    public static function key(array $document): string
    {
        return (string) $document['name'];
    }

    public function documents(): array
    {
        return array_values(StoredRole::query()->whereKeyNot(Role::ADMINISTRATOR)->orderBy('position')->get()->map(
            static fn (StoredRole $role): array => ['name' => $role->name] + RoleFile::write($role->role()),
        )->all());
    }

    public function difference(?array $here, array $there): array
    {
        $role = static fn (array $file): Role => RoleFile::kept((string) $file['name'], $file);

        return (new RoleDifference($this->schemas->schema()))->said($here === null ? null : $role($here), $role($there));
    }

    public function bring(array $document, Bringing $how): void
    {
        $name = (string) $document['name'];
        $file = array_diff_key($document, ['name' => true]);
        $kept = StoredRole::query()->find($name);
        if ($kept === null) {
            $this->keeper->add($file, $how->by, $name);
        } else {
            $this->keeper->change($name, $kept->version, $file, $how->by);
        }
    }
}
