<?php

declare(strict_types=1);

namespace VividLedger\Schema;

/** One record type seen from another: the tickets of a customer are those whose reference field names it. */
final readonly class Relation
{
    /**
     * @param  RecordType  $type  the related type
     * @param  Field  $by  the reference field: of the related type for children, of the own type for a parent
     * @param  bool  $children  true when the related records refer to the own one, false when it refers to them
     */
    public function __construct(
        public RecordType $type,
        public Field $by,
        public bool $children,
    ) {
    }

    /**
     * All relations of a type, to its children and to its parents.
     *
     * @return list<self>
     */
    public static function of(Schema $schema, RecordType $own): array
    {
        $relations = [];
        foreach ($schema->types as $type) {
            foreach ($type->ownFields() as $field) {
                if ($field->target === $own->name) {
                    $relations[] = new self($type, $field, true);
                }
            }
        }
        foreach ($own->ownFields() as $field) {
            $target = $field->target === null ? null : $schema->type($field->target);
            if ($target !== null) {
                $relations[] = new self($target, $field, false);
            }
        }

        return $relations;
    }

    /** How a rule file names it: "ticket.customer" for children, "customer" for a parent. */
    public function name(): string
    {
        return $this->children ? "{$this->type->name}.{$this->by->name}" : $this->by->name;
    }

    public static function named(Schema $schema, RecordType $own, string $name): ?self
    {
        foreach (self::of($schema, $own) as $relation) {
            if ($relation->name() === $name) {
                return $relation;
            }
        }

        return null;
    }

    /**
     * One related record inside a sentence: "ticket", or "ticket (as Second customer)" where two fields refer alike; a parent by its field.
     */
    public function one(): string
    {
        return $this->children ? $this->type->inSentence().$this->byWhich() : mb_strtolower($this->by->label);
    }

    /** The children as a heading: "Tickets". */
    public function many(): string
    {
        return $this->type->plural.$this->byWhich();
    }

    private function byWhich(): string
    {
        $alike = array_filter($this->type->ownFields(), fn (Field $field): bool => $field->target === $this->by->target);

        return count($alike) > 1 ? " (as {$this->by->label})" : '';
    }
}
