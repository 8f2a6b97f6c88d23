<?php

declare(strict_types=1);

namespace App\Store;

use App\Models\Inbound\Hook;
use App\Models\Library\LetterVersion;
use App\Models\Library\StoredCalendar;
use App\Models\Library\StoredCondition;
use App\Models\Library\StoredLadder;
use App\Models\Library\StoredLetter;
use App\Models\Library\StoredRoute;
use App\Models\Outbound\Endpoint;
use App\Models\People\Person;
use App\Models\Setup\CompanySettings;
use App\Models\Slips\SlipForm;
use App\Models\Slips\SlipFormVersion;
use Illuminate\Database\Eloquent\Model;

/**
 * What programs that run for days remember of the company besides its record types. Whatever of it is made, changed or dropped counts up
 * a number, at which each of them looks before it goes on (App\Work\ConfigurationWatch), and by which proofs know that they are old.
 */
final class Remembered
{
    /** @var array<class-string<Model>, list<string>> columns that matter, by model; none for all */
    private const WHAT = [
        StoredCondition::class => [], StoredLetter::class => [], LetterVersion::class => [], StoredLadder::class => [],
        StoredRoute::class => [], SlipForm::class => [], SlipFormVersion::class => [], StoredCalendar::class => [],
        // How calls and arrivals went stands there too, and is read each time.
        Endpoint::class => ['name'], Hook::class => ['name', 'record_type'],
        Person::class => ['handle', 'name', 'active', 'team'],
        CompanySettings::class => ['name', 'time_zone', 'fallback_person_id', 'calendar_id'],
    ];

    /** Looks at every change of it from now on. */
    public static function watch(): void
    {
        foreach (self::WHAT as $model => $columns) {
            $model::saved(static function (Model $row) use ($columns): void {
                if ($row->wasRecentlyCreated || $row->wasChanged($columns)) {
                    CompanySettings::keptChanged();
                }
            });
            $model::deleted(static fn () => CompanySettings::keptChanged());
        }
    }
}
