<?php

declare(strict_types=1);

namespace VividLedger\Explain;

/** An entry with the names of all it mentions, and what it keeps in words. */
final readonly class ReadEntry
{
    public Kept $kept;

    /**
     * @param  string  $via  the way it came in: person, api or rule
     * @param  ?string  $number  of its record
     * @param  list<array{field: string, label: string, before: string, after: string}>  $changes  in words
     * @param  array<array-key, mixed>  $data  in words
     */
    public function __construct(
        public string $kind,
        public string $via,
        public ?string $who,
        public ?string $rule,
        public ?int $page,
        public ?string $number,
        public array $changes,
        array $data,
    ) {
        $this->kept = new Kept($data);
    }

    /** Whether rules were asked when it happened, so that each can be asked why it did or did not fire. */
    public function wasAnswered(): bool
    {
        return in_array($this->kind, Headline::ANSWERED, true) && $this->number !== null;
    }
}
