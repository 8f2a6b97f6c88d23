<?php

declare(strict_types=1);

namespace Bench;

use App\Models\Access\TokenScope;
use App\Models\People\Person;
use Illuminate\Database\Connection;

/**
 * People who have one record open while somebody changes it: what asking every few seconds takes, how soon they see the change, and what it
 * would take to hold a connection to each of them instead (server-sent events).
 */
final class WatchBench
{
    private const PEOPLE = 50;

    private const SECONDS = 40;

    /** So often an open record asks (`RecordScreen.svelte`). */
    private const EVERY = 5.0;

    private const TICKETS = 1000;

    public static function run(): void
    {
        ManyTickets::fill(app(Connection::class), self::TICKETS);
        $tokens = Person::query()->where('active', true)->orderBy('id')->limit(self::PEOPLE)->get()
            ->map(static fn (Person $person): string => $person->createToken('bench', [TokenScope::Reading->value])->plainTextToken)->all();
        $windows = array_map(static fn (int $nth): \CurlHandle => self::window($tokens[$nth % count($tokens)]), range(0, self::PEOPLE - 1));
        $before = Processes::seconds();
        [$times, $delays] = self::watch($windows);
        $used = array_sum(Processes::seconds()) - array_sum($before);
        Figures::note(sprintf('%d windows ask for one record every %g s, for %d s', self::PEOPLE, self::EVERY, self::SECONDS));
        Figures::one('an answer, median', Timing::percentile($times, 50), 'ms', 'under 100');
        [$half, $most] = [Timing::percentile($delays, 50) / 1000, Timing::percentile($delays, 95) / 1000];
        Figures::one('a change is seen by half of them after', $half, 's', 'under '.self::EVERY / 2 .' or so');
        Figures::one('a change is seen by nearly all (95th) after', $most, 's', 'under '.self::EVERY + 1);
        Figures::one('of one core, PHP and the database use', 100 * $used / self::SECONDS, '%', 'under 50');
        $process = Processes::megabytes('php-fpm');
        Figures::note(sprintf('a held connection keeps a PHP process of %.0f MB: %d of them, %.0f MB; asking took %d, %.0f MB',
            $process, self::PEOPLE, self::PEOPLE * $process, Processes::count('php-fpm'), Processes::count('php-fpm') * $process));
    }

    /**
     * Lets the windows ask, each at its own time, while the record is changed every few seconds.
     *
     * @param  list<\CurlHandle>  $windows
     * @return array{list<float>, list<float>} how long answers took, and after how long changes were seen, in milliseconds
     */
    private static function watch(array $windows): array
    {
        $multi = curl_multi_init();
        $begun = microtime(true);
        $next = array_map(static fn (int $nth): float => $begun + self::EVERY * $nth / count($windows), array_keys($windows));
        [$times, $delays, $asking] = [[], [], []];
        $seen = array_fill(0, count($windows), 0);
        [$changedAt, $changes] = [$begun, $begun + self::EVERY];
        while (microtime(true) < $begun + self::SECONDS || $asking !== []) {
            $now = microtime(true);
            if ($now >= $changes && $now < $begun + self::SECONDS - 2 * self::EVERY) {
                app(Connection::class)->table('records_ticket')->where('id', 1)->increment('version');
                [$changedAt, $changes] = [microtime(true), $now + 2 * self::EVERY];
            }
            foreach ($next as $nth => $at) {
                if ($at <= $now && $now < $begun + self::SECONDS && ! isset($asking[$nth])) {
                    curl_multi_add_handle($multi, $windows[$nth]);
                    $asking[$nth] = true;
                    $next[$nth] = $at + self::EVERY;
                }
            }
            curl_multi_exec($multi, $running);
            curl_multi_select($multi, 0.005);
            while (($done = curl_multi_info_read($multi)) !== false) {
                $nth = (int) array_search($done['handle'], $windows, true);
                $times[] = 1000 * (float) curl_getinfo($done['handle'], CURLINFO_TOTAL_TIME);
                $answer = json_decode((string) curl_multi_getcontent($done['handle']), true);
                $is = is_array($answer) ? (int) ($answer['version'] ?? 0) : 0;
                if ($seen[$nth] !== 0 && $is > $seen[$nth]) {
                    $delays[] = 1000 * (microtime(true) - $changedAt);
                }
                $seen[$nth] = $is;
                curl_multi_remove_handle($multi, $done['handle']);
                unset($asking[$nth]);
            }
        }

        return [$times, $delays];
    }

    private static function window(string $token): \CurlHandle
    {
        $handle = curl_init(config('app.url').'/api/records/ticket/1');
        curl_setopt_array($handle, [
            CURLOPT_RETURNTRANSFER => true, CURLOPT_HTTPHEADER => ["Authorization: Bearer {$token}", 'Accept: application/json'],
        ]);

        return $handle;
    }
}
