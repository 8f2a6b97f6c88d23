<?php

declare(strict_types=1);

namespace VividLedger\Facts;

use VividLedger\Record\Alteration;

/** A rule in play on a record: it fired, and still has lines pencilled in. It stays on the page it began with. */
final class Run
{
    /** @var list<PencilledLine> what is still to come, by when it falls due */
    public array $lines = [];

    /**
     * @param  array<string, array{string, int}>  $made  type and id of the records its lines made, by the name later lines use
     * @param  int  $entry  number of the entry that began it
     * @param  ?Alteration  $began  what the change was that began it
     */
    public function __construct(
        public readonly int $id,
        public readonly int $rule,
        public readonly int $page,
        public readonly string $type,
        public readonly int $record,
        public readonly \DateTimeImmutable $startedAt,
        public readonly array $made = [],
        public readonly int $entry = 0,
        public readonly ?Alteration $began = null,
    ) {
    }

    /** @param  list<int>  $done  ids of lines that are no more to come */
    public function without(array $done): self
    {
        $left = clone $this;
        $left->lines = array_values(array_filter(
            $this->lines,
            static fn (PencilledLine $line): bool => ! in_array($line->id, $done, true),
        ));

        return $left;
    }
}
