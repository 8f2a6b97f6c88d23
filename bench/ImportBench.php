<?php

declare(strict_types=1);

namespace Bench;

use App\Evidence\Lists\BulkWorker;
use App\Models\Lists\BulkJob;
use App\Models\People\Person;
use App\Store\Actor;
use App\Store\Import\ImportStore;
use App\Store\Records\SaveRecord;
use App\Store\Types\SchemaStore;
use Illuminate\Database\Connection;
use VividLedger\Import\Mode;

/** A file of 100,000 rows becomes records, with 20 rules in force: tried, then saved, beside the same rows written by plain SQL. */
final class ImportBench
{
    private const ROWS = 100_000;

    private const PIECE = 200;

    public static function run(): void
    {
        $db = app(Connection::class);
        $ines = Person::query()->where('handle', 'ines.okafor')->firstOrFail();
        RuleBench::twenty($ines->id);
        $type = app(SchemaStore::class)->schema()->types['ticket'];
        app(SaveRecord::class)->create(app(SchemaStore::class)->schema()->types['customer'], ['name' => 'Bulk', 'plan' => 'care'],
            new Actor($ines->id));
        $again = new RowsAgain($db, ['records_ticket']);
        // What one piece writes; its first rows are those that are written again and again for the floor.
        $again->watch(static fn () => self::import($ines, self::PIECE));
        Figures::note('rows for '.self::PIECE.' records: '.$again->said());
        gc_collect_cycles();
        memory_reset_peak_usage();
        [$tried, $saved] = self::import($ines, self::ROWS);
        $memory = memory_get_peak_usage() / 1048576;
        $pdo = $db->getPdo();
        $began = hrtime(true);
        for ($piece = 0; $piece < self::ROWS / self::PIECE; $piece++) {
            $pdo->beginTransaction();
            $again->writeBatched($pdo, self::PIECE);
            $pdo->commit();
        }
        $floor = (hrtime(true) - $began) / 1e9;
        $what = 'import: '.number_format(self::ROWS).' rows become records, 20 rules in force, 2 fire on a quarter of them';
        Figures::pair($what, $saved, 'batched plain inserts of the same rows', $floor, 's', 6.0);
        Figures::one('trying them all before', $tried, 's', 'less than saving them');
        Figures::one('its peak of memory', $memory, 'MB', 'at most 256');
    }

    /** @return array{float, float} seconds for trying and for saving */
    private static function import(Person $by, int $rows): array
    {
        $type = app(SchemaStore::class)->schema()->types['ticket'];
        $store = app(ImportStore::class);
        $lines = ["Subject,Customer,Priority,Status,Owner,Due,Cost\n"];
        for ($n = 1; $n <= $rows; $n++) {
            $priority = ['Low', 'Normal', 'High', 'Urgent'][$n % 4];
            $lines[] = sprintf("Ticket %d,Bulk,%s,Open,Ines Okafor,%02d.11.2026,%d.50\n", $n, $priority, 1 + $n % 28, $n % 900);
        }
        $text = implode('', $lines);
        $job = $store->begin($type, $by, 'tickets.csv', strlen($text));
        foreach (str_split($text, ImportStore::PIECE_BYTES) as $place => $piece) {
            $store->put($job, $place, $piece);
        }
        unset($text, $lines);
        $store->read($job);
        $store->plan($job, $job->spec['fields'], null, Mode::Create);
        $tried = self::timed($job);
        $store->start($job->refresh(), true);
        $saved = self::timed($job);
        if ($job->refresh()->saved !== $rows) {
            throw new \LogicException("{$job->saved} of {$rows} rows became records.");
        }

        return [$tried, $saved];
    }

    private static function timed(BulkJob $job): float
    {
        $began = hrtime(true);
        while (app(BulkWorker::class)->work(3600.0) > 0) {
        }

        return (hrtime(true) - $began) / 1e9;
    }
}
