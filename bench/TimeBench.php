<?php

declare(strict_types=1);

namespace Bench;

use App\Models\People\Person;
use App\Store\HouseClock;
use App\Store\Rules\RuleStore;
use App\Work\Rules\RulePublisher;
use App\Work\Timing\DueRows;
use App\Work\Timing\Sweep;
use Illuminate\Database\Connection;
use VividLedger\Time\WorkingCalendar;
use VividLedger\Time\WorkingHours;

/** Time: working-time arithmetic, a sweep over a million records, claiming among a million pencilled lines. */
final class TimeBench
{
    private const NOW = '2026-11-24 08:59:50';

    private const RECORDS = 1_000_000;

    private const DUE = 2_000;

    public static function arithmetic(): void
    {
        $hours = WorkingHours::of(
            array_fill_keys(['1', '2', '3', '4', '5'], [['08:30', '12:30'], ['13:15', '17:00']]),
            ['2026-12-25', '2027-01-01'],
        );
        $calendar = new WorkingCalendar($hours, new \DateTimeZone('Europe/Berlin'));
        $bases = array_map(
            static fn (int $index): \DateTimeImmutable => new \DateTimeImmutable('@'.(1_790_000_000 + 3671 * $index)),
            range(0, 9999),
        );
        $calendar->add($bases[0], 3600);
        $from = hrtime(true);
        for ($round = 0; $round < 20; $round++) {
            foreach ($bases as $index => $base) {
                $calendar->add($base, 3600 * ($index % 200));
            }
        }
        Figures::one('working-time additions', 200_000 / ((hrtime(true) - $from) / 1e9), 'a second', 'at least 200,000');
    }

    public static function sweep(): void
    {
        $db = app(Connection::class);
        app(HouseClock::class)->hold(new \DateTimeImmutable(self::NOW));
        $owner = Person::query()->where('handle', 'bram.castellan')->firstOrFail()->id;
        $ines = Person::query()->where('handle', 'ines.okafor')->firstOrFail()->id;
        $customer = (int) $db->scalar('SELECT MIN(id) FROM records_customer');
        $db->statement('TRUNCATE records_agreement');
        $db->statement(
            "INSERT INTO records_agreement (id, version, title, customer, status, `end`, owner, created_at, updated_at)
            SELECT seq, 1, CONCAT('Bench ', seq), ?, 'running',
                IF(seq % 500 = 0, '2026-12-04', DATE_ADD('2026-12-05', INTERVAL seq % 900 DAY)), ?, ?, ? FROM seq_1_to_".self::RECORDS,
            [$customer, $owner, self::NOW, self::NOW],
        );
        $db->statement('ANALYZE TABLE records_agreement');
        $rule = app(RuleStore::class)->draft([
            'name' => 'Ends in ten days', 'on' => 'agreement', 'when' => [
                'kind' => 'date', 'field' => 'end', 'amount' => -10, 'unit' => 'day', 'time' => '10:00',
            ],
            'onlyIf' => [
                'kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'status', 'value' => 'running']],
            ], 'fires' => ['kind' => 'every_time'],
            'lines' => [
                [
                    'kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Talk to {customer.name}',
                    'due' => ['amount' => 2, 'unit' => 'day'],
                ],
            ],
        ], $ines);
        $from = hrtime(true);
        app(RulePublisher::class)->publish($rule, 1, $ines);
        Figures::one('putting a date rule in force over 1,000,000 records', (hrtime(true) - $from) / 1e9, 's', 'under 2');
        app(HouseClock::class)->hold(new \DateTimeImmutable('2026-11-24 09:00:05'));
        $again = new RowsAgain($db);
        $from = hrtime(true);
        $seconds = 0.0;
        $started = 0;
        $again->watch(static function () use (&$seconds, &$started): void {
            $from = hrtime(true);
            $started = app(Sweep::class)->work();
            $seconds = (hrtime(true) - $from) / 1e9;
        });
        if ($started !== self::DUE) {
            throw new \LogicException("The sweep started {$started} records.");
        }
        Figures::note("rows the sweep writes: {$again->said()}");
        $pdo = $db->getPdo();
        $from = hrtime(true);
        $pdo->beginTransaction();
        $read = $pdo->prepare("SELECT * FROM records_agreement WHERE `end` IN ('2026-12-04') ORDER BY id");
        $read->execute();
        $read->fetchAll(\PDO::FETCH_OBJ);
        $again->writeBatched($pdo, 500);
        $pdo->commit();
        $floor = (hrtime(true) - $from) / 1e9;
        $beside = 'plain SQL, same rows read and written, 500 a statement';
        Figures::pair('sweep: 2,000 of 1,000,000 due, one task each', $seconds, $beside, $floor, 's', 2.5);
    }

    public static function claim(): void
    {
        $db = app(Connection::class);
        $db->statement('TRUNCATE scheduled_lines');
        $fill = static fn (int $from, int $to, string $base) => $db->statement(
            "INSERT INTO scheduled_lines (id, kind, status, due_at, record_type, record_id, entry_id) SELECT seq, 'bench', 'pencilled', "
                ."DATE_ADD('{$base}', INTERVAL seq SECOND), 'agreement', seq, 1 FROM seq_{$from}_to_{$to}",
        );
        $fill(1, 100_000, '2026-11-24 09:00:00');
        $few = self::claiming($db, 'claim 500 of 100,000 pencilled lines');
        $fill(100_001, 1_000_000, '2027-06-01 00:00:00');
        $db->statement('ANALYZE TABLE scheduled_lines');
        $many = self::claiming($db, 'claim 500 of 1,000,000 pencilled lines');
        Figures::one('900,000 far-future lines make claiming slower by', 100 * ($many[0] / $few[0] - 1), '%', 'at most 10');
        Figures::one('  the same, beside the plain select and update', 100 * ($many[1] / $few[1] - 1), '%', 'at most 10');
    }

    /** @return array{float, float} microseconds of what the worker does to claim a batch, and how often the floor that is */
    private static function claiming(Connection $db, string $what): array
    {
        $pdo = $db->getPdo();
        $ours = static function () use ($db): void {
            $db->transaction(static function () use ($db): void {
                $rows = DueRows::due('2027-01-01 00:00:00', 500)->get()->all();
                $db->update(
                    "UPDATE scheduled_lines SET note = IF(note = 'a', 'b', 'a') WHERE id IN (".implode(', ', array_column($rows, 'id')).')',
                );
            });
        };
        $plain = static function () use ($pdo): void {
            $pdo->beginTransaction();
            $read = $pdo->prepare(
                "SELECT * FROM scheduled_lines WHERE status = 'pencilled' AND due_at <= ? ORDER BY due_at, id LIMIT 500 FOR UPDATE",
            );
            $read->execute(['2027-01-01 00:00:00']);
            $ids = array_column($read->fetchAll(\PDO::FETCH_ASSOC), 'id');
            $pdo->exec("UPDATE scheduled_lines SET note = IF(note = 'a', 'b', 'a') WHERE id IN (".implode(', ', $ids).')');
            $pdo->commit();
        };

        return Timing::pair($what, 'a plain indexed select and update', 5, $ours, $plain, 1.2);
    }
}
