<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Record\Change;
use VividLedger\Record\Display;
use VividLedger\Schema\Field;
use VividLedger\Shape\Filled;

/** Which fields a change has to touch: any, or one of several; and of a single field the value it came from and the one it came to. */
final readonly class ChangedFields
{
    /**
     * @param  ?list<string>  $names  null for any field
     * @param  string  $wording  " in Status from Open to Closed"; empty for any field
     */
    private function __construct(
        public ?array $names,
        public ?Field $single,
        public string|int|bool|null $from,
        public string|int|bool|null $to,
        private string $wording,
    ) {
    }

    /** What stood at the places for the fields and their values. */
    public static function of(Filled $read, Display $display): self
    {
        $fields = $read->all('fields', Field::class);
        $single = count($fields) === 1 ? $fields[0] : null;
        $wording = $fields === [] ? '' : ' in '.implode(' or ', array_map(static fn (Field $field): string => $field->label, $fields));
        $values = [];
        foreach (['from', 'to'] as $side) {
            $value = $read->raw($side);
            $values[$side] = is_string($value) || is_int($value) || is_bool($value) ? $value : null;
            $wording .= $values[$side] === null || $single === null ? '' : " {$side} ".$display->of($single, $values[$side]);
        }

        return new self(
            $fields === [] ? null : array_map(static fn (Field $field): string => $field->name, $fields),
            $single,
            $values['from'],
            $values['to'],
            $wording,
        );
    }

    public function asksValues(): bool
    {
        return $this->from !== null || $this->to !== null;
    }

    public function changedIn(Change $change): bool
    {
        if ($this->names !== null && array_intersect($this->names, $change->fields()) === []) {
            return false;
        }
        if ($this->single === null) {
            return $change->fields() !== [];
        }

        return ($this->from === null || $change->before?->value($this->single->name) === $this->from)
            && ($this->to === null || $change->after?->value($this->single->name) === $this->to);
    }

    public function wording(): string
    {
        return $this->wording;
    }
}
