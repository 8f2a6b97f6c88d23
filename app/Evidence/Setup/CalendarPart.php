<?php

declare(strict_types=1);

namespace App\Evidence\Setup;

use App\Models\Columns;
use App\Models\Library\StoredCalendar;
use App\Models\Library\TeamCalendar;
use App\Models\People\Person;
use App\Models\Setup\CompanySettings;
use App\Store\Library\CalendarKeep;

/** Working calendars, and which teams go by each. Who besides goes by one stays: people are no part of a setup. */
final class CalendarPart extends NamedPart
{
    public function __construct(private readonly CalendarKeep $keep)
    {
    }

    public static function folder(): string
    {
        return 'calendars';
    }

    public static function schema(): array
    {
        return ['required' => ['name', 'timeZone', 'hours'], 'properties' => [
            'name' => ['type' => 'string', 'minLength' => 1, 'maxLength' => 60], 'timeZone' => ['type' => 'string'],
            'hours' => [
                'type' => 'object', 'description' => 'Spans such as ["09:00", "17:00"], by ISO weekday.',
                'additionalProperties' => ['type' => 'array', 'items' => ['type' => 'array', 'items' => ['type' => 'string']]],
            ],
            'holidays' => ['type' => 'object', 'additionalProperties' => ['type' => 'string']],
            'isCompanys' => ['type' => 'boolean'], 'teams' => ['type' => 'array', 'items' => ['type' => 'string']],
        ]];
    }

    protected function kept(): array
    {
        $company = CompanySettings::query()->find(CompanySettings::ID)?->calendar_id;
        $teams = TeamCalendar::query()->orderBy('team')->get()->groupBy('calendar_id');

        return StoredCalendar::query()->orderBy('name')->get()->mapWithKeys(static fn (StoredCalendar $row): array => [$row->id => [
            'name' => $row->name, 'timeZone' => $row->time_zone, 'hours' => $row->hours, 'holidays' => $row->holidays,
            'isCompanys' => $row->id === $company, 'teams' => Columns::texts($teams->get($row->id)?->pluck('team') ?? collect()),
        ]])->all();
    }

    protected function keep(?int $id, array $document, int $by): void
    {
        $this->keep->keep(
            $id, null, (string) $document['name'], (string) $document['timeZone'], (array) $document['hours'],
            (array) ($document['holidays'] ?? []), ($document['isCompanys'] ?? false) === true,
            array_values(array_map(strval(...), (array) ($document['teams'] ?? []))),
            Columns::ints(Person::query()->where('calendar_id', $id ?? 0)->pluck('id')),
        );
    }
}
