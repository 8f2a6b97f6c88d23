<?php

declare(strict_types=1);

namespace VividLedger\Schema;

/** The people of the company as conditions see them behind a person field: "Owner › Team". Nobody sets these as a record's fields. */
final class People
{
    public const TYPE = 'person';

    /** Labels of the roles that people have in the application. */
    public const ROLES = ['administrator' => 'Administrator', 'manager' => 'Manager', 'member' => 'Member', 'auditor' => 'Auditor'];

    public static function type(): RecordType
    {
        static $type = null;

        return $type instanceof RecordType ? $type : $type = new RecordType(
            name: self::TYPE, label: 'Person', plural: 'People', prefix: 'P', title: 'name', owner: 'manager',
            ownFields: [
                new Field('name', 'Name', FieldType::Text, system: true),
                new Field('team', 'Team', FieldType::Text, system: true),
                new Field(
                    'role',
                    'Role',
                    FieldType::Choice,
                    choices: array_map(
                        static fn (string $role, string $label): Choice => new Choice($role, $label),
                        array_keys(self::ROLES),
                        self::ROLES,
                    ),
                    system: true,
                ),
                new Field('manager', 'Manager', FieldType::Person, system: true),
                new Field('email', 'Email', FieldType::Email, system: true),
            ],
            isKept: false,
        );
    }
}
