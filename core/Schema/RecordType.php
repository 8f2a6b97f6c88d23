<?php

declare(strict_types=1);

namespace VividLedger\Schema;

/** A kind of record, such as Ticket: its words and its fields, the application's own fields included. */
final readonly class RecordType
{
    /** @var array<string, Field> by name */
    public array $fields;

    /**
     * @param  string  $prefix  of the record numbers, "T" gives T-0042
     * @param  string  $title  name of the text field that names a record
     * @param  string  $owner  name of the person field that holds the owner
     * @param  list<Field>  $ownFields
     * @param  list<string>  $columns  names of the fields a list shows, in order
     * @param  bool  $isKept  whether its records are made and changed here, and so know when and by whom
     */
    public function __construct(
        public string $name,
        public string $label,
        public string $plural,
        public string $prefix,
        public string $title,
        public string $owner,
        array $ownFields,
        public array $columns = [],
        bool $isKept = true,
    ) {
        $fields = [];
        foreach ([...$ownFields, ...($isKept ? self::systemFields() : [])] as $field) {
            $fields[$field->name] = $field;
        }
        $this->fields = $fields;
    }

    public function field(string $name): ?Field
    {
        return $this->fields[$name] ?? null;
    }

    /**
     * The same for somebody who knows nothing of some fields.
     *
     * @param  list<string>  $names  not of the title or the owner, by which every record is known
     */
    public function without(array $names): self
    {
        $left = array_values(array_filter($this->fields, static fn (Field $field): bool => ! in_array($field->name, $names, true)));

        return new self(
            name: $this->name, label: $this->label, plural: $this->plural, prefix: $this->prefix, title: $this->title,
            owner: $this->owner, ownFields: $left, columns: array_values(array_diff($this->columns, $names)), isKept: false,
        );
    }

    /** @return list<Field> the fields that are not the application's own */
    public function ownFields(): array
    {
        return array_values(array_filter($this->fields, static fn (Field $field): bool => ! $field->system));
    }

    /** @return array<string, Field> the texts of one line, by which a record is searched for */
    public function shortTexts(): array
    {
        return array_filter(
            $this->fields,
            static fn (Field $field): bool => $field->type->isText() && $field->type !== FieldType::LongText,
        );
    }

    /** The choice that says how far a record has come: "stage" or "status"; null when it has neither. */
    public function stage(): ?Field
    {
        foreach (['stage', 'status'] as $name) {
            $field = $this->fields[$name] ?? null;
            if ($field?->type === FieldType::Choice) {
                return $field;
            }
        }

        return null;
    }

    public function numberOf(int $id): string
    {
        return sprintf('%s-%04d', $this->prefix, $id);
    }

    /** The id behind a record number; null when the text is no number of this type. */
    public function idOf(string $number): ?int
    {
        $pattern = '/^'.preg_quote($this->prefix, '/').'-(\d{1,18})$/i';

        return preg_match($pattern, trim($number), $found) === 1 ? (int) $found[1] : null;
    }

    /** The label inside a sentence: "a ticket". */
    public function inSentence(): string
    {
        return mb_strtolower($this->label);
    }

    /** One of them inside a sentence: "an agreement". */
    public function one(): string
    {
        return (preg_match('/^[aeiou]/i', $this->label) === 1 ? 'an ' : 'a ').$this->inSentence();
    }

    /** @return list<Field> */
    private static function systemFields(): array
    {
        return [
            new Field('created_at', 'Created', FieldType::DateTime, system: true),
            new Field('created_by', 'Created by', FieldType::Person, system: true),
            new Field('updated_at', 'Last changed', FieldType::DateTime, system: true),
            new Field('updated_by', 'Last changed by', FieldType::Person, system: true),
        ];
    }
}
