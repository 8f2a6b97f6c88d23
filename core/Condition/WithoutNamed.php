<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use VividLedger\House\Directory;
use VividLedger\House\Person;
use VividLedger\Time\WorkingCalendar;

/** A directory in which no condition has a name. */
final readonly class WithoutNamed implements Directory
{
    public function __construct(private Directory $of)
    {
    }

    public function calendar(?Person $person): WorkingCalendar
    {
        return $this->of->calendar($person);
    }

    public function person(int $id): ?Person
    {
        return $this->of->person($id);
    }

    public function title(string $type, int $id): ?string
    {
        return $this->of->title($type, $id);
    }

    public function personByHandle(string $handle): ?Person
    {
        return $this->of->personByHandle($handle);
    }

    public function peopleAtWork(): array
    {
        return $this->of->peopleAtWork();
    }

    public function teams(): array
    {
        return $this->of->teams();
    }

    public function namedConditions(string $type): array
    {
        return [];
    }

    public function namedCondition(string $type, string $name): ?array
    {
        return null;
    }

    public function letters(string $type): array
    {
        return $this->of->letters($type);
    }

    public function letter(string $name): ?array
    {
        return $this->of->letter($name);
    }

    public function routes(string $type): array
    {
        return $this->of->routes($type);
    }

    public function route(string $type, string $name): ?array
    {
        return $this->of->route($type, $name);
    }

    public function slips(string $type): array
    {
        return $this->of->slips($type);
    }

    public function slip(string $type, string $name): ?array
    {
        return $this->of->slip($type, $name);
    }

    public function endpoints(): array
    {
        return $this->of->endpoints();
    }

    public function hooks(string $type): array
    {
        return $this->of->hooks($type);
    }

    public function ladders(): array
    {
        return $this->of->ladders();
    }

    public function ladder(string $name): ?array
    {
        return $this->of->ladder($name);
    }
}
