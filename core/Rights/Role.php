<?php

declare(strict_types=1);

namespace VividLedger\Rights;

use VividLedger\Schema\Schema;

/** What everybody of a role may do. A record type that the role does not name is treated like EVERY_OTHER. */
final readonly class Role
{
    /** Whoever has this one may everything, and it cannot be changed: nobody shuts the company out of its own house. */
    public const ADMINISTRATOR = 'administrator';

    public const EVERY_OTHER = '*';

    /**
     * @param  list<Duty>  $duties
     * @param  array<string, array<array-key, Reach>>  $reaches  by record type and act; what is left out is Reach::None
     * @param  array<string, array<array-key, FieldAccess>>  $fields  by record type and field; what is left out is FieldAccess::Full
     */
    public function __construct(
        public string $name,
        public string $label,
        public array $duties = [],
        public array $reaches = [],
        public array $fields = [],
    ) {
    }

    public static function administrator(string $label = 'Administrator'): self
    {
        $everything = array_fill_keys(array_column(Act::cases(), 'value'), Reach::All);

        return new self(self::ADMINISTRATOR, $label, Duty::cases(), [self::EVERY_OTHER => $everything]);
    }

    public function has(Duty $duty): bool
    {
        return in_array($duty, $this->duties, true);
    }

    public function reach(Act $act, string $type): Reach
    {
        return ($this->reaches[$type] ?? $this->reaches[self::EVERY_OTHER] ?? [])[$act->value] ?? Reach::None;
    }

    public function access(string $type, string $field): FieldAccess
    {
        return $this->fields[$type][$field] ?? FieldAccess::Full;
    }

    /** Whether an act extends to somebody’s records of some type. */
    public function mayEver(Act ...$acts): bool
    {
        foreach ($this->reaches as $of) {
            foreach ($acts as $act) {
                if (($of[$act->value] ?? Reach::None) !== Reach::None) {
                    return true;
                }
            }
        }

        return false;
    }

    /** Whether no record and no field is kept from them. */
    public function readsEverything(Schema $schema): bool
    {
        foreach ($schema->types as $type) {
            if ($this->reach(Act::Read, $type->name) !== Reach::All || $this->hides($type->name)) {
                return false;
            }
        }

        return true;
    }

    public function hides(string $type): bool
    {
        return in_array(FieldAccess::Hidden, $this->fields[$type] ?? [], true);
    }
}
