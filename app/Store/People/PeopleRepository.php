<?php

declare(strict_types=1);

namespace App\Store\People;

use App\Models\Ledger\Entry;
use App\Models\People\Absence;
use App\Models\People\AbsenceState;
use App\Models\People\Person;
use App\Models\Setup\CompanySettings;
use App\Models\SignOffs\StoredSignOff;
use App\Store\Access\PersonLinks;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\RefusedFor;
use App\Store\Sql\Batch;
use Illuminate\Database\Connection;
use VividLedger\Explain\Turns;
use VividLedger\Record\CauseKind;
use VividLedger\Record\Value;
use VividLedger\Rights\Role;
use VividLedger\SignOff\SignOffStatus;
use VividLedger\Words\Words;

/**
 * What is kept of people besides their names: who manages them, up to how much they may sign off, who stands in for them and when.
 * Whatever of that changes, sign-offs that wait look at once whether their way still leads to those who are asked.
 */
final readonly class PeopleRepository
{
    private const MOST_DAYS = 400;

    public function __construct(private Connection $db, private HouseClock $clock)
    {
    }

    /**
     * @param  array{manager_id?: ?int, deputy_id?: ?int, active?: bool, sign_off_limit?: ?string, sign_off_limits?: array<string, string>,
     *     name?: string, email?: string, role?: string, team?: string, time_zone?: string}  $given  what is not there stays
     *
     * @throws DomainError
     */
    public function change(int $id, array $given, int $by): void
    {
        $this->db->transaction(function () use ($id, $given, $by): void {
            $person = Person::query()->lockForUpdate()->find($id) ?? throw self::missing($id);
            foreach (['manager_id' => 'managerId', 'deputy_id' => 'deputyId'] as $column => $name) {
                if (($given[$column] ?? null) === $id) {
                    throw self::refused("/{$name}", Words::say('Nobody is that for themselves.'));
                }
            }
            self::mustBeNoRing($id, $given['manager_id'] ?? null);
            $this->mustStaySound($person, $given);
            $fallback = CompanySettings::query()->find(CompanySettings::ID)?->fallback_person_id;
            if (($given['active'] ?? true) === false && $fallback === $id) {
                throw self::refused('/active', Words::say('They stand in when a rule finds nobody. Name somebody else in Setup first.'));
            }
            $person->fill($given);
            $changed = array_keys($person->getDirty());
            if ($changed === []) {
                return;
            }
            $before = array_intersect_key($person->getOriginal(), $person->getDirty());
            $person->save();
            if (! $person->active) {
                PersonLinks::shut($id);
            }
            $this->entry('person_changed', $id, $by, ['turns' => Turns::between($before, $person->only($changed))]);
            $this->lookAgain();
        });
    }

    /**
     * Nobody is above themselves, however many stand between.
     *
     * @throws DomainError at "/managerId"
     */
    public static function mustBeNoRing(int $id, ?int $manager): void
    {
        $chain = [];
        for ($above = $manager; $above !== null && ! isset($chain[$above]); $above = Person::query()->find($above)?->manager_id) {
            $chain[$above] = true;
            if ($above === $id) {
                throw self::refused('/managerId', Words::say('That would be a ring: they are above that person already.'));
            }
        }
    }

    /**
     * @param  array<string, mixed>  $given
     *
     * @throws DomainError
     */
    private function mustStaySound(Person $person, array $given): void
    {
        if (isset($given['email']) && Person::query()->where('email', $given['email'])->whereKeyNot($person->id)->exists()) {
            throw self::refused('/email', Words::say('Somebody has that address already.'));
        }
        if (isset($given['name']) && trim($given['name']) === '') {
            throw self::refused('/name', Words::say('Everybody has a name.'));
        }
        $isLast = $person->role === Role::ADMINISTRATOR && $person->active && ! Person::query()->where('role', Role::ADMINISTRATOR)
            ->where('active', true)->whereKeyNot($person->id)->lockForUpdate()->exists();
        if ($isLast && (($given['role'] ?? Role::ADMINISTRATOR) !== Role::ADMINISTRATOR || ($given['active'] ?? true) === false)) {
            $message = Words::say('They are the last administrator. Make somebody else one first.');
            throw self::refused(isset($given['role']) ? '/role' : '/active', $message);
        }
    }

    /** @throws DomainError */
    public function goesAway(int $id, \DateTimeImmutable $from, \DateTimeImmutable $until, ?int $deputy, int $by): Absence
    {
        return $this->db->transaction(function () use ($id, $from, $until, $deputy, $by): Absence {
            Person::query()->lockForUpdate()->find($id) ?? throw self::missing($id);
            if ($until <= $from || $until <= $this->clock->now()) {
                throw self::refused('/until', Words::say('It ends after it begins, and not in the past.'));
            }
            if ($until > $from->modify('+'.self::MOST_DAYS.' days')) {
                throw self::refused('/until', Words::say('At most {days} days.', days: self::MOST_DAYS));
            }
            if ($deputy === $id) {
                throw self::refused('/deputyId', Words::say('Nobody stands in for themselves.'));
            }
            $overlaps = Absence::query()->where('person_id', $id)->where('state', '!=', AbsenceState::Over)
                ->where('starts_at', '<', $until)->where('ends_at', '>', $from)->exists();
            if ($overlaps) {
                throw self::refused('/from', Words::say('They are absent then already.'));
            }
            $absence = Absence::query()->create([
                'person_id' => $id, 'deputy_id' => $deputy, 'starts_at' => $from, 'ends_at' => $until, 'state' => AbsenceState::Ahead,
            ]);
            $this->entry('goes_away', $id, $by, [
                'from' => Value::instantText($from), 'until' => Value::instantText($until), 'deputy' => $deputy,
            ]);
            $this->keepTime();

            return $absence;
        });
    }

    /** An absence that is not to be, or ends at once. */
    public function comesBack(int $absence, int $by): void
    {
        $this->db->transaction(function () use ($absence, $by): void {
            $kept = Absence::query()->lockForUpdate()->find($absence)
                ?? throw DomainError::missing(Words::say('There is no such absence.'));
            $isBegun = $kept->state === AbsenceState::Begun;
            $kept->update(['state' => AbsenceState::Over]);
            if ($isBegun) {
                $this->back($kept->person_id);
            }
            $this->entry('comes_back', $kept->person_id, $by, []);
        });
    }

    /**
     * Absences begin and end as their time comes.
     *
     * @return int how many did
     */
    public function keepTime(): int
    {
        $now = $this->clock->now();
        $over = Absence::query()->where('state', AbsenceState::Begun)->where('ends_at', '<=', $now)->get();
        foreach ($over as $absence) {
            $absence->update(['state' => AbsenceState::Over]);
            $this->back($absence->person_id);
        }
        $begins = Absence::query()->where('state', AbsenceState::Ahead)->where('starts_at', '<=', $now)->get();
        foreach ($begins as $absence) {
            $isOver = $absence->ends_at <= $now;
            $absence->update(['state' => $isOver ? AbsenceState::Over : AbsenceState::Begun]);
            if (! $isOver) {
                Person::query()->whereKey($absence->person_id)->update(['away' => true, 'stand_in_id' => $absence->deputy_id]);
                $this->lookAgain();
            }
        }

        return count($over) + count($begins);
    }

    /** When an absence begins or ends next; null when none does. */
    public static function next(): ?\DateTimeImmutable
    {
        $moments = array_filter([
            Absence::query()->where('state', AbsenceState::Ahead)->orderBy('starts_at')->first()?->starts_at,
            Absence::query()->where('state', AbsenceState::Begun)->orderBy('ends_at')->first()?->ends_at,
        ]);

        return $moments === [] ? null : min($moments);
    }

    private function back(int $person): void
    {
        Person::query()->whereKey($person)->update(['away' => false, 'stand_in_id' => null]);
        // What their deputy was asked for them comes back to them.
        $this->lookAgain();
    }

    /** Sign-offs that wait are tended at the next opportunity. */
    private function lookAgain(): void
    {
        StoredSignOff::query()->where('status', SignOffStatus::Waiting)->update(['wakes_at' => $this->clock->now()]);
    }

    /** @param  array<string, mixed>  $data */
    private function entry(string $kind, int $person, int $by, array $data): void
    {
        Batch::insert(Entry::class, [Entry::row($kind, $this->clock->now(), ['person' => $person] + $data, [
            'actor_id' => $by, 'via' => CauseKind::Person,
        ])]);
    }

    private static function missing(int $id): DomainError
    {
        return DomainError::missing(Words::say('There is no person {id}.', id: $id));
    }

    private static function refused(string $at, string $message): DomainError
    {
        return new DomainError('invalid_values', $message, RefusedFor::Invalid, [
            ['at' => $at, 'code' => 'invalid_value', 'message' => $message],
        ]);
    }
}
