<?php

declare(strict_types=1);

namespace VividLedger\House;

/** What reading a rule needs to know of a company besides its schema: people by handle, and what is kept under a name. */
interface Directory extends Calendars, Names
{
    public function personByHandle(string $handle): ?Person;

    /** @return list<Person> everybody at work, by name */
    public function peopleAtWork(): array;

    /** @return list<string> names of the teams somebody at work belongs to */
    public function teams(): array;

    /** @return list<string> names of the conditions kept for a record type */
    public function namedConditions(string $type): array;

    /** @return ?array<mixed> the condition as a rule file writes it */
    public function namedCondition(string $type, string $name): ?array;

    /** @return list<string> names of the letter templates for a record type */
    public function letters(string $type): array;

    /** @return ?array<mixed> subject and body of a letter template */
    public function letter(string $name): ?array;

    /** @return list<string> names of the routes of sign-offs kept for a record type */
    public function routes(string $type): array;

    /** @return ?list<mixed> the steps as a rule file writes them */
    public function route(string $type, string $name): ?array;

    /** @return list<string> names of the reply slips kept for a record type */
    public function slips(string $type): array;

    /** @return ?array{subject: string, body: string, asks: list<mixed>} what a kept slip shows and asks */
    public function slip(string $type, string $name): ?array;

    /** @return list<string> names of the endpoints of other systems kept in Setup */
    public function endpoints(): array;

    /** @return list<string> names of the hooks kept in Setup that bring records of a type */
    public function hooks(string $type): array;

    /** @return list<string> names of the ladders kept in Setup */
    public function ladders(): array;

    /** @return ?list<mixed> the rungs as a rule file writes them */
    public function ladder(string $name): ?array;
}
