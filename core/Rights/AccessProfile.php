<?php

declare(strict_types=1);

namespace VividLedger\Rights;

use VividLedger\Record\Record;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;
use VividLedger\Schema\Schema;

/** What one person may see and do: their role, and who is around them. A record is its owner's; without an owner, its maker's. */
final readonly class AccessProfile
{
    /**
     * @param  list<int>  $team  everybody of their team, themselves included
     * @param  list<int>  $below  everybody whose manager they are, at any distance, themselves included
     */
    public function __construct(
        public Role $role,
        public ?int $person,
        private array $team = [],
        private array $below = [],
    ) {
    }

    /** The house itself: rules, workers and commands. */
    public static function ofTheHouse(): self
    {
        return new self(Role::administrator(), null);
    }

    /** @return ?list<int> whose records an act extends to; null for everybody's */
    public function owners(Act $act, string $type): ?array
    {
        return match ($this->role->reach($act, $type)) {
            Reach::None => [],
            Reach::Own => $this->person === null ? [] : [$this->person],
            Reach::Team => $this->team,
            Reach::Subtree => $this->below,
            Reach::All => null,
        };
    }

    public function covers(Act $act, RecordType $type, Record $record): bool
    {
        $owners = $this->owners($act, $type->name);

        return $owners === null || in_array($record->value($type->owner) ?? $record->value('created_by'), $owners, true);
    }

    /**
     * The record types and fields they know of. A field that refers to records of which they see none is not there either.
     */
    public function schema(Schema $schema): Schema
    {
        if ($this->role->name === Role::ADMINISTRATOR) {
            return $schema;
        }
        $types = [];
        foreach ($schema->types as $name => $type) {
            if ($this->role->reach(Act::Read, $name) !== Reach::None) {
                $types[$name] = $this->type($type);
            }
        }

        return new Schema($types);
    }

    public function type(RecordType $type): RecordType
    {
        $hidden = [];
        foreach ($type->fields as $field) {
            $isOutOfSight = $field->type === FieldType::Reference && $this->role->reach(Act::Read, (string) $field->target) === Reach::None;
            if ($isOutOfSight || $this->role->access($type->name, $field->name) === FieldAccess::Hidden) {
                $hidden[] = $field->name;
            }
        }

        return $hidden === [] ? $type : $type->without($hidden);
    }
}
