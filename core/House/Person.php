<?php

declare(strict_types=1);

namespace VividLedger\House;

/** Someone who works with the application. The handle is their name in rule files and never changes. */
final readonly class Person
{
    /** @param  ?string  $limit  up to how much money they may sign off, as a decimal number; null for nothing */
    public function __construct(
        public int $id,
        public string $handle,
        public string $name,
        public ?int $managerId = null,
        public bool $active = true,
        public string $team = '',
        public string $email = '',
        public string $phone = '',
        public string $zone = '',
        public string $role = '',
        public ?string $limit = null,
    ) {
    }
}
