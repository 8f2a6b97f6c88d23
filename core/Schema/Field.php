<?php

declare(strict_types=1);

namespace VividLedger\Schema;

/** One field of a record type, with everything that decides which values it takes. */
final readonly class Field
{
    /**
     * @param  list<Choice>  $choices  of a choice field, in the order they are offered
     * @param  ?string  $target  the record type a reference field points at
     * @param  int  $scale  digits after the point, of a decimal field
     * @param  int  $maxLength  in characters, of a text field
     * @param  ?string  $currency  ISO 4217 code, of a money field
     * @param  ?string  $min  the least amount of a decimal field
     * @param  ?string  $max  the greatest amount of a decimal field
     * @param  ?string  $formula  over the record's own fields; such a field is never set, only computed
     * @param  bool  $system  kept by the application itself: readable, never set by a person or a rule
     * @param  string  $help  what somebody who fills it in is told
     * @param  string  $section  under which heading it stands on the page; empty for the first, which has none
     * @param  string|int|bool|null  $default  of a new record that is given nothing else
     * @param  bool  $unique  whether no two records have the same
     * @param  list<string>  $requiredAt  values of the stage at which it has to be filled in
     * @param  OnDelete  $onDelete  of a reference: what becomes of its record when the other one is deleted
     * @param  ?string  $numbering  of a text that is counted up by the application, see Numbering
     */
    public function __construct(
        public string $name,
        public string $label,
        public FieldType $type,
        public bool $required = false,
        public array $choices = [],
        public ?string $target = null,
        public int $scale = 2,
        public int $maxLength = 255,
        public ?string $currency = null,
        public ?string $min = null,
        public ?string $max = null,
        public ?string $formula = null,
        public bool $system = false,
        public string $help = '',
        public string $section = '',
        public string|int|bool|null $default = null,
        public bool $unique = false,
        public array $requiredAt = [],
        public OnDelete $onDelete = OnDelete::Keep,
        public ?string $numbering = null,
    ) {
    }

    /** The same for comparing: anything can be compared with a value the field itself would not take. */
    public function unbounded(): self
    {
        return $this->min === null && $this->max === null ? $this : $this->as($this->label, null, null);
    }

    /** The same under another name: what is wrong with an answer is said of what was asked. */
    public function called(string $label): self
    {
        return $this->as($label, $this->min, $this->max);
    }

    private function as(string $label, ?string $min, ?string $max): self
    {
        return new self(
            name: $this->name, label: $label, type: $this->type, required: $this->required, choices: $this->choices,
            target: $this->target, scale: $this->scale, maxLength: $this->maxLength, currency: $this->currency, min: $min, max: $max,
            formula: $this->formula, system: $this->system, help: $this->help, section: $this->section, default: $this->default,
            unique: $this->unique, requiredAt: $this->requiredAt, onDelete: $this->onDelete, numbering: $this->numbering,
        );
    }

    /** Whether a person or a rule may set it. */
    public function isSettable(): bool
    {
        return ! $this->system && $this->formula === null && $this->numbering === null;
    }

    /** What a new record has there that is given nothing else. */
    public function begun(): string|int|bool|null
    {
        return $this->default ?? ($this->type === FieldType::Tick ? false : null);
    }

    public function choice(string $value): ?Choice
    {
        foreach ($this->choices as $choice) {
            if ($choice->value === $value) {
                return $choice;
            }
        }

        return null;
    }
}
