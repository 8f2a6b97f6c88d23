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
    ) {
    }

    /** The same for comparing: anything can be compared with a value the field itself would not take. */
    public function unbounded(): self
    {
        return $this->min === null && $this->max === null ? $this
            : new self(
                $this->name,
                $this->label,
                $this->type,
                $this->required,
                $this->choices,
                $this->target,
                $this->scale,
                $this->maxLength,
                $this->currency,
                null,
                null,
                $this->formula,
                $this->system,
                $this->help,
            );
    }

    /** Whether a person or a rule may set it. */
    public function isSettable(): bool
    {
        return ! $this->system && $this->formula === null;
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
