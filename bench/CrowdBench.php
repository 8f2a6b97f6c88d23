<?php

declare(strict_types=1);

namespace Bench;

use App\Models\People\Person;
use Illuminate\Database\Connection;

/** People who are signed in and click about, all at once, through the web server: how long each answer takes, and what is short first. */
final class CrowdBench
{
    private const PEOPLE = 50;

    private const SECONDS = 60;

    private const TICKETS = 200_000;

    public static function run(): void
    {
        $db = app(Connection::class);
        ManyTickets::fill($db, self::TICKETS);
        ManyTickets::tasks($db);
        $crowd = new Crowd((string) config('app.url'), self::people(), self::TICKETS);
        $before = self::cpu();
        $seen = $crowd->click(self::SECONDS);
        $used = array_map(
            static fn (float $after, float $then): float => round(100 * ($after - $then) / self::SECONDS),
            self::cpu(), $before,
        );
        [$times, $floor, $errors] = [$seen['times'], $seen['floor'], $seen['errors']];
        Figures::note(sprintf(
            '%d people, %d requests in %d s (%.0f a second)', self::PEOPLE, count($times), self::SECONDS, count($times) / self::SECONDS,
        ));
        Figures::note(sprintf('of two cores, 200 %%: PHP %d %%, the database %d %%, this bench %d %%', ...$used));
        foreach ($seen['kinds'] as $kind => $of) {
            [$half, $most] = [Timing::percentile($of, 50), Timing::percentile($of, 95)];
            Figures::note(sprintf('%-22s %5d times, median %4.0f ms, 95th %4.0f ms', $kind, count($of), $half, $most));
        }
        Figures::pair('median answer among 50 people', Timing::percentile($times, 50), 'an empty answer, in the same minute',
            Timing::percentile($floor, 50), 'ms', 20);
        Figures::one('95th percentile among 50 people', Timing::percentile($times, 95), 'ms', 'under 400');
        Figures::one('answers that were no answer', (float) count($errors), '', 'none');
        foreach (array_slice(array_count_values($errors), 0, 5) as $error => $count) {
            Figures::note("{$count} times: {$error}");
        }
    }

    /** @return list<string> addresses to sign in with; more than there are people, some sit at two windows */
    private static function people(): array
    {
        // Those who only look would be refused what the others change.
        $all = Person::query()->where('active', true)->whereIn('role', ['administrator', 'manager', 'member'])->orderBy('id')
            ->pluck('email')->all();

        return array_map(static fn (int $nth): string => (string) $all[$nth % count($all)], range(0, self::PEOPLE - 1));
    }

    /** @return array{float, float, float} seconds of a core that PHP, the database and this process have used */
    private static function cpu(): array
    {
        $used = Processes::seconds();

        return [$used['php-fpm'], $used['mariadbd'], Processes::own()];
    }
}
