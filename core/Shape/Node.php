<?php

declare(strict_types=1);

namespace VividLedger\Shape;

/** One place in a rule file, which may hold anything: what is read from it is checked here. */
final readonly class Node
{
    /**
     * @param  string  $at  JSON Pointer (RFC 6901) of this place; empty for the whole file
     * @param  ?KeyTracker  $reads  where what is asked for is remembered
     */
    public function __construct(
        public mixed $raw,
        public string $at = '',
        private ?KeyTracker $reads = null,
    ) {
    }

    public function child(string $key): self
    {
        $this->reads?->asked($this->at, $key);

        return new self(
            is_array($this->raw) ? ($this->raw[$key] ?? null) : null,
            $this->at.'/'.str_replace(['~', '/'], ['~0', '~1'], $key),
            $this->reads,
        );
    }

    /** @return list<self> empty when there is no list here */
    public function items(): array
    {
        $items = [];
        foreach (is_array($this->raw) && array_is_list($this->raw) ? $this->raw : [] as $index => $raw) {
            $items[] = new self($raw, "{$this->at}/{$index}", $this->reads);
        }

        return $items;
    }

    public function isMissing(): bool
    {
        return $this->raw === null || $this->raw === '' || $this->raw === [];
    }

    /** @return ?string the text here; null when there is none, or something else */
    public function text(): ?string
    {
        return is_string($this->raw) && $this->raw !== '' ? $this->raw : null;
    }

    public function kind(): string
    {
        return $this->child('kind')->text() ?? '';
    }
}
