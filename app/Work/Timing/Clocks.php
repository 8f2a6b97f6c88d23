<?php

declare(strict_types=1);

namespace App\Work\Timing;

use App\Store\People\PeopleStore;
use App\Store\Setup\Company;
use App\Store\Types\SchemaStore;
use VividLedger\Time\WorkingCalendar;

/** The calendars and zones by which time is told here: the company's, or that of each person. */
final readonly class Clocks
{
    public function __construct(private SchemaStore $schemas, private Company $company)
    {
    }

    /**
     * @return array{WorkingCalendar, \DateTimeZone} the company tells the time in its own zone, whatever zone its calendar was written in
     */
    public function company(): array
    {
        return [(new PeopleStore($this->schemas))->calendar(null), $this->company->zone()];
    }

    /**
     * @return array{list<array{WorkingCalendar, \DateTimeZone}>, array<int, array{WorkingCalendar, \DateTimeZone}>} those that differ, and
     *     whose is whose
     */
    public function everybodys(): array
    {
        $people = new PeopleStore($this->schemas);
        $company = $people->calendar(null);
        // Whoever owns nothing goes by the company's calendar, told by its own clock.
        $all = [spl_object_id($company) => [$company, $company->zone]];
        $whose = [];
        foreach ($people->everybody() as $person) {
            $calendar = $people->calendar($person);
            $whose[$person->id] = $all[spl_object_id($calendar)] ??= [$calendar, $calendar->zone];
        }

        return [array_values($all), $whose];
    }
}
