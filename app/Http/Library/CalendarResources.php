<?php

declare(strict_types=1);

namespace App\Http\Library;

use App\Models\Columns;
use App\Models\Library\StoredCalendar;
use App\Models\Library\TeamCalendar;
use App\Models\People\Person;
use App\Models\Setup\CompanySettings;
use Illuminate\Database\Eloquent\Builder;

/** Reads working calendars, with those who go by them. */
final class CalendarResources
{
    /**
     * @param  ?int  $only  of this id
     * @return list<CalendarResource> by name
     */
    public function all(?int $only = null): array
    {
        $company = CompanySettings::query()->whereKey(CompanySettings::ID)->value('calendar_id');
        $teams = TeamCalendar::query()->orderBy('team')->get()->groupBy('calendar_id');
        $people = Person::query()->whereNotNull('calendar_id')->orderBy('name')->get(['id', 'calendar_id'])->groupBy('calendar_id');
        $calendars = StoredCalendar::query()->when(
            $only !== null,
            static fn (Builder $all): Builder => $all->whereKey($only),
        )->orderBy('name');

        return array_values($calendars->get()->map(static fn (StoredCalendar $calendar): CalendarResource => new CalendarResource(
            id: $calendar->id, name: $calendar->name, timeZone: $calendar->time_zone, hours: $calendar->hours,
            holidays: $calendar->holidays, version: $calendar->version, company: $calendar->id === $company,
            teams: Columns::texts(
                ($teams[$calendar->id] ?? collect())->pluck('team'),
            ),
            people: Columns::ints(($people[$calendar->id] ?? collect())->pluck('id')),
        ))->all());
    }
}
