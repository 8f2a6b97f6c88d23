<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Facts\Run;
use VividLedger\Record\Record;

/** Lines of a run that fall due at another moment, because what they hang on moved. */
final readonly class Retimed implements Step
{
    /**
     * @param  array<int, array{?\DateTimeImmutable, ?\DateTimeImmutable, 2?: ?\DateTimeImmutable}>  $lines  by id: when it was to fall
     *     due, when it will, and what its timing said where quiet hours have moved it from there
     * @param  ?\DateTimeImmutable  $met  when what they waited for became true; null where that is not why
     */
    public function __construct(
        public Run $run,
        public Record $record,
        public array $lines,
        public string $because,
        public ?int $parent,
        public ?\DateTimeImmutable $met = null,
    ) {
    }

    public function parent(): ?int
    {
        return $this->parent;
    }
}
