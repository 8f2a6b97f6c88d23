<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\People\Person;

/** A task that a line hands out. */
final readonly class TaskGiven
{
    /**
     * @param  string  $path  how the person was found
     * @param  bool  $stoodIn  whether the person is the company's fallback
     */
    public function __construct(
        public string $title,
        public ?Person $person,
        public string $path,
        public bool $stoodIn,
        public ?\DateTimeImmutable $due,
    ) {
    }
}
