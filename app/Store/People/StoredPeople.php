<?php

declare(strict_types=1);

namespace App\Store\People;

use App\Models\Columns;
use App\Models\Outbound\MessageAddress;
use App\Models\People\TeamTurn;
use App\Models\Records\Follower;
use App\Models\Setup\CompanySettings;
use VividLedger\Facts\PeopleFacts;
use VividLedger\House\Person;
use VividLedger\Message\Address;

/** What lines ask about people, from the database. Nobody's past is kept: people and teams are those of today. */
final class StoredPeople implements PeopleFacts
{
    /** @var array<string, list<Person>> */
    private array $teams = [];

    /** @var array<string, list<Person>> */
    private array $roles = [];

    /**
     * @param  bool  $takes  whether asking for a turn keeps others from it; else it is only looked at
     * @param  ?\DateTimeImmutable  $until  only messages sent before a moment count
     */
    public function __construct(
        private readonly PeopleStore $names,
        private readonly bool $takes,
        private readonly ?\DateTimeImmutable $until = null,
    ) {
    }

    public function person(int $id): ?Person
    {
        return $this->names->person($id);
    }

    public function title(string $type, int $id): ?string
    {
        return $this->names->title($type, $id);
    }

    public function fallbackPerson(): ?Person
    {
        $id = CompanySettings::query()->whereKey(CompanySettings::ID)->value('fallback_person_id');

        return $id === null ? null : $this->names->person($id);
    }

    public function team(string $name): array
    {
        return $this->teams[$name] ??= $this->names->team($name);
    }

    public function role(string $name): array
    {
        return $this->roles[$name] ??= $this->names->role($name);
    }

    public function lastInTurn(string $team): ?int
    {
        if (! $this->takes) {
            return ((int) TeamTurn::query()->whereKey($team)->value('person_id')) ?: null;
        }
        // Locked, so that two records at once go to two people; a team that never had a turn needs a row that can be locked.
        // Said so that a row that is there is locked for writing at once: two who only share it could not both go on.
        TeamTurn::rows()->upsert(['team' => $team, 'person_id' => 0], ['team'], ['team']);

        return ((int) TeamTurn::rows()->where('team', $team)->lockForUpdate()->value('person_id')) ?: null;
    }

    public function followers(string $type, int $id): array
    {
        return Columns::ints(Follower::query()->about($type, $id)->orderBy('person_id')->pluck('person_id'));
    }

    public function messagesTo(Address $address, \DateTimeImmutable $since): array
    {
        $sent = MessageAddress::rows()->where('address', MessageAddress::key($address))->where('at', '>=', Columns::moment($since))
            ->orderBy('at');
        if ($this->until !== null) {
            $sent->where('at', '<', Columns::moment($this->until));
        }

        return array_map(Columns::instant(...), Columns::texts($sent->pluck('at')));
    }
}
