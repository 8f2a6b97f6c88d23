<?php

declare(strict_types=1);

namespace App\Models\Access;

use App\Models\Columns;
use VividLedger\Rights\AccessProfile;
use VividLedger\Rights\Act;
use VividLedger\Rights\Duty;
use VividLedger\Rights\Reach;
use VividLedger\Rights\Role;

/** What a person may see and do, by their role and by who is around them; asked once for each object. */
trait HasRights
{
    private ?AccessProfile $sight = null;

    private ?Role $rights = null;

    public function may(Duty $duty): bool
    {
        return $this->rights()->has($duty);
    }

    /** Whether they do the daily work, on whatever records. */
    public function mayWork(): bool
    {
        return $this->rights()->mayEver(Act::Create, Act::Change, Act::Delete, Act::Run);
    }

    public function rights(): Role
    {
        // A role that is gone lets nobody do anything.
        return $this->rights ??= $this->role === Role::ADMINISTRATOR ? Role::administrator()
            : StoredRole::called($this->role);
    }

    public function sight(): AccessProfile
    {
        return $this->sight ??= new AccessProfile(
            $this->rights(),
            $this->id,
            $this->reaches(Reach::Team) ? $this->teamIds() : [],
            $this->reaches(Reach::Subtree) ? $this->idsBelow() : [],
        );
    }

    private function reaches(Reach $reach): bool
    {
        foreach ($this->rights()->reaches as $of) {
            if (in_array($reach, $of, true)) {
                return true;
            }
        }

        return false;
    }

    /** @return list<int> whoever has left included: their records are the team's */
    public function teamIds(): array
    {
        return $this->team === '' ? [$this->id] : Columns::ints(self::query()->where('team', $this->team)->pluck('id'));
    }

    /** @return list<int> everybody whose manager they are, at any distance, themselves included */
    public function idsBelow(): array
    {
        $managers = self::query()->whereNotNull('manager_id')->pluck('manager_id', 'id')->all();
        [$found, $next] = [[$this->id], [$this->id]];
        while ($next !== []) {
            $next = array_values(array_diff(array_map(intval(...), array_keys(array_intersect($managers, $next))), $found));
            array_push($found, ...$next);
        }

        return $found;
    }
}
