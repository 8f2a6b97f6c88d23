<?php

declare(strict_types=1);

namespace VividLedger\Condition;

/** What a condition found on one record: whether it held, and the value it saw. */
final readonly class Finding implements \JsonSerializable
{
    /**
     * @param  string  $text  the condition as a sentence, "Priority is Urgent"
     * @param  ?string  $seen  the value as a person reads it; null for a group
     * @param  list<Finding>  $parts  of a group
     */
    public function __construct(
        public string $text,
        public bool $held,
        public ?string $seen = null,
        public array $parts = [],
    ) {
    }

    /** The first condition that spoils the whole, with what it saw. */
    public function miss(): string
    {
        foreach ($this->parts as $part) {
            if (! $part->held && $this->text === 'all of') {
                return $part->miss();
            }
        }
        if ($this->parts !== []) {
            return $this->text === 'none of' ? 'a condition held that must not' : 'none of its alternatives held';
        }

        return "‘{$this->text}’ does not hold, the value is {$this->seen}";
    }

    /** The first condition that holds. */
    public function hit(): string
    {
        foreach ($this->parts as $part) {
            if ($part->held) {
                return $part->hit();
            }
        }

        return $this->text;
    }

    /** @return array<string, mixed> */
    public function jsonSerialize(): array
    {
        return ['text' => $this->text, 'held' => $this->held, 'seen' => $this->seen, 'parts' => $this->parts];
    }
}
