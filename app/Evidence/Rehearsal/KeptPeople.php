<?php

declare(strict_types=1);

namespace App\Evidence\Rehearsal;

use VividLedger\Facts\PeopleFacts;
use VividLedger\House\Person;
use VividLedger\Message\Address;
use VividLedger\Schema\Schema;

/** People of a proof: those of today, of whom nothing has been asked yet; and records are called what they were when it was kept. */
final readonly class KeptPeople implements PeopleFacts
{
    public function __construct(
        private PeopleFacts $today,
        private KeptRecords $records,
        private Schema $schema,
    ) {
    }

    public function person(int $id): ?Person
    {
        return $this->today->person($id);
    }

    public function title(string $type, int $id): ?string
    {
        $record = $this->records->record($type, $id);
        $recordType = $this->schema->type($type);
        $title = $recordType === null ? null : $record?->value($recordType->title);

        return $record === null || $recordType === null ? null : (is_string($title) ? $title : $recordType->numberOf($id));
    }

    public function fallbackPerson(): ?Person
    {
        return $this->today->fallbackPerson();
    }

    public function team(string $name): array
    {
        return $this->today->team($name);
    }

    public function role(string $name): array
    {
        return $this->today->role($name);
    }

    public function lastInTurn(string $team): null
    {
        return null;
    }

    public function followers(string $type, int $id): array
    {
        return [];
    }

    public function messagesTo(Address $address, \DateTimeImmutable $since): array
    {
        return [];
    }
}
