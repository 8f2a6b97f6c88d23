<?php

declare(strict_types=1);

namespace VividLedger\House;

/** Someone who works with the application. The handle is their name in rule files and never changes. */
final readonly class Person
{
    /**
     * @param  bool  $active  whether they are with the company
     * @param  ?string  $limit  up to how much money they may sign off, as a decimal number; null for nothing
     * @param  bool  $away  whether they are absent now
     * @param  ?int  $deputyId  who stands in for them while they are absent, or took over when they left
     * @param  array<string, string>  $limits  where another limit is theirs for records of a type, by its name
     */
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
        public bool $away = false,
        public ?int $deputyId = null,
        public array $limits = [],
    ) {
    }

    public function isAtWork(): bool
    {
        return $this->active && ! $this->away;
    }

    public function absent(): self
    {
        return new self(
            id: $this->id, handle: $this->handle, name: $this->name, managerId: $this->managerId, active: $this->active,
            team: $this->team, email: $this->email, phone: $this->phone, zone: $this->zone, role: $this->role, limit: $this->limit,
            away: true, deputyId: $this->deputyId, limits: $this->limits,
        );
    }

    /** Up to how much money they may sign off for records of a type; null for nothing. */
    public function limitFor(string $type): ?string
    {
        return $this->limits[$type] ?? $this->limit;
    }
}
