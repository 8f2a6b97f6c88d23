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
     * @param  bool  $system  kept by the application itself: readable, never set by a person or a rule
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
        public bool $system = false,
    ) {
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
