<?php

declare(strict_types=1);

namespace App\Store\Setup;

use App\Models\Outbound\LinkKind;
use App\Models\People\Person;
use App\Models\Setup\CompanySettings;
use App\Store\Access\AccessEntries;
use App\Store\Access\PersonLinks;
use App\Store\DomainError;
use App\Store\Library\CalendarKeep;
use App\Store\People\Onboarding;
use App\Store\RefusedFor;
use Illuminate\Database\Connection;
use VividLedger\Rights\Role;
use VividLedger\Words\Words;

/** Opens a company where there is none: its name, its zone and hours, its first administrator, and what it starts with. */
final readonly class NewCompany
{
    private const NAME_LENGTH = 120;

    public function __construct(
        private Connection $db,
        private Onboarding $joining,
        private CalendarKeep $calendars,
        private StarterSets $sets,
        private AccessEntries $entries,
    ) {
    }

    public static function isOpen(): bool
    {
        return CompanySettings::query()->exists();
    }

    /**
     * A link by which somebody may open the company, for whoever runs the server.
     *
     * @throws DomainError when there is a company already
     */
    public static function link(): string
    {
        self::mustBeNone();

        return PersonLinks::make(LinkKind::Begin, null);
    }

    /**
     * @param  array{company: string, timeZone: string, from: string, to: string, days: list<int>, sets: list<string>, name: string,
     *     email: string}  $given
     *
     * @throws DomainError with every problem at its place
     */
    public function open(array $given): Person
    {
        $name = trim($given['company']);
        self::check($name, $given);
        // Tables are made outside of any transaction; a second try finds them and goes on.
        $this->sets->makeTypes($given['sets']);

        return $this->db->transaction(function () use ($name, $given): Person {
            self::mustBeNone();
            CompanySettings::query()->create(['id' => CompanySettings::ID, 'name' => $name, 'time_zone' => $given['timeZone']]);
            $person = $this->joining->invite([
                'name' => $given['name'], 'email' => $given['email'], 'role' => Role::ADMINISTRATOR, 'team' => 'Administration',
                'timeZone' => $given['timeZone'], 'managerId' => null,
            ], null);
            CompanySettings::query()->whereKey(CompanySettings::ID)->update(['fallback_person_id' => $person->id]);
            $hours = array_fill_keys($given['days'], [[$given['from'], $given['to']]]);
            $this->calendars->keep(null, null, 'Working hours', $given['timeZone'], $hours, [], true, [], []);
            $this->sets->draftRules($given['sets'], $person->id);
            $this->entries->write('company_opened', $person->id, ['name' => $name]);

            return $person;
        });
    }

    /** @param  array{timeZone: string, from: string, to: string, days: list<int>, ...}  $given */
    private static function check(string $name, array $given): void
    {
        self::mustBeNone();
        if ($name === '' || mb_strlen($name) > self::NAME_LENGTH) {
            throw DomainError::at(
                '/company',
                $name === ''
                    ? Words::say('Give the company a name.')
                    : Words::say('At most {most} characters.', most: self::NAME_LENGTH),
            );
        }
        if (! in_array($given['timeZone'], \DateTimeZone::listIdentifiers(), true)) {
            throw DomainError::at('/timeZone', Words::say('Choose a time zone.'));
        }
        if ($given['days'] === []) {
            throw DomainError::at('/days', Words::say('Choose at least one day.'));
        }
        if ($given['from'] >= $given['to']) {
            throw DomainError::at('/to', Words::say('Work ends after it begins.'));
        }
    }

    private static function mustBeNone(): void
    {
        if (self::isOpen()) {
            throw new DomainError('wrong_state', Words::say('There is a company here already.'), RefusedFor::Conflict);
        }
    }
}
