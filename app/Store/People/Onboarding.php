<?php

declare(strict_types=1);

namespace App\Store\People;

use App\Models\Outbound\LinkKind;
use App\Models\People\Person;
use App\Models\Setup\CompanySettings;
use App\Store\Access\AccessEntries;
use App\Store\Access\Passwords;
use App\Store\Access\PersonLinks;
use App\Store\DomainError;
use App\Store\RefusedFor;
use Illuminate\Database\Connection;
use Illuminate\Support\Facades\Hash;
use Illuminate\Support\Str;
use VividLedger\Words\Words;

/** People come in: they are invited by a letter, and choose their password by its link. */
final readonly class Onboarding
{
    public function __construct(private Connection $db, private AccessEntries $entries)
    {
    }

    /**
     * Writes somebody down who may come in as soon as they have chosen a password.
     *
     * @param  array{name: string, email: string, role: string, team: string, timeZone: string, managerId: ?int}  $given
     * @param  ?int  $by  null for the first of all
     *
     * @throws DomainError
     */
    public function invite(array $given, ?int $by): Person
    {
        return $this->db->transaction(function () use ($given, $by): Person {
            if (Person::query()->where('email', $given['email'])->lockForUpdate()->exists()) {
                throw DomainError::at('/email', Words::say('Somebody has that address already.'), RefusedFor::Conflict);
            }
            $person = Person::query()->create([
                'handle' => self::handle($given['name']), 'name' => $given['name'], 'email' => $given['email'],
                // Nobody knows it: whoever is invited chooses their own.
                'password' => self::nobodys(), 'role' => $given['role'], 'team' => $given['team'], 'time_zone' => $given['timeZone'],
                'manager_id' => $given['managerId'], 'active' => true,
            ]);
            if ($by !== null) {
                $this->entries->write('person_invited', $by, ['person' => $person->id, 'role' => $given['role']]);
            }

            return $person;
        });
    }

    /**
     * Chooses a password by the link of a letter, which is used up by it.
     *
     * @throws DomainError
     */
    public function choose(string $token, string $password): Person
    {
        return $this->db->transaction(function () use ($token, $password): Person {
            $link = PersonLinks::open($token, true);
            $person = $link->person ?? throw DomainError::missing(Words::say('This link is for nobody.'));
            $this->set($person, $password);
            $this->entries->write($link->kind === LinkKind::Invite ? 'person_joined' : 'password_reset', $person->id, [
                'person' => $person->id,
            ]);

            return $person;
        });
    }

    /**
     * Somebody who is signed in takes another password.
     *
     * @throws DomainError at "/password"
     */
    public function change(Person $person, string $password): void
    {
        $this->db->transaction(function () use ($person, $password): void {
            $this->set($person, $password);
            $this->entries->write('password_changed', $person->id, ['person' => $person->id]);
        });
    }

    private function set(Person $person, string $password): void
    {
        Passwords::check($password, [$person->name, $person->email, (string) CompanySettings::query()->value('name')]);
        // Whoever else got in by what was there before is out: links, tokens, and the calendar.
        $person->forceFill(['password' => $password, 'joined_at' => $person->joined_at ?? new \DateTimeImmutable, 'feed' => null])->save();
        PersonLinks::shut($person->id);
        foreach ($person->tokens()->get() as $token) {
            $token->delete();
            $this->entries->write('token_ended', $person->id, ['person' => $person->id, 'title' => (string) $token->name]);
        }
    }

    /** The hash of a password that nobody knows; made once, as each takes a tenth of a second and a list has hundreds of people. */
    private static function nobodys(): string
    {
        static $hash = null;

        return $hash ??= Hash::make(Str::random(60));
    }

    /** "kim.noor", and the next that is free. */
    private static function handle(string $name): string
    {
        $plain = mb_substr(trim(Str::slug(Str::ascii($name), '.'), '.'), 0, 50);
        $plain = $plain === '' ? 'person' : $plain;
        for ($nth = 1, $handle = $plain; Person::query()->where('handle', $handle)->exists(); $handle = $plain.++$nth) {
            continue;
        }

        return $handle;
    }
}
