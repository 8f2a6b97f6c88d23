<?php

declare(strict_types=1);

namespace Bench;

use App\Models\People\Person;
use App\Store\HouseClock;
use App\Store\Rules\RuleStore;
use App\Work\Rules\RulePublisher;
use App\Work\Timing\LineWorker;
use Illuminate\Database\Connection;

/** Draining many lines that are due, by one worker and by two. */
final class DrainBench
{
    private const DRAINED = 50_000;

    public static function run(): void
    {
        $db = app(Connection::class);
        self::records($db);
        $ines = Person::query()->where('handle', 'ines.okafor')->firstOrFail()->id;
        $rule = app(RuleStore::class)->draft([
            'name' => 'Later', 'on' => 'agreement', 'when' => ['kind' => 'by_hand'], 'fires' => ['kind' => 'every_time'], 'lines' => [
                [
                    'kind' => 'set_fields', 'set' => [['field' => 'visits_left', 'to' => ['kind' => 'value', 'value' => '7']]],
                    'at' => ['kind' => 'after', 'amount' => 1, 'unit' => 'day'],
                ],
                [
                    'kind' => 'send_message', 'channel' => 'app', 'to' => [['kind' => 'person', 'person' => ['kind' => 'owner']]],
                    'subject' => 'About {number}', 'body' => '<p>It ends soon.</p>',
                    'at' => ['kind' => 'after', 'amount' => 1, 'unit' => 'day'],
                ],
            ],
        ], $ines);
        app(RulePublisher::class)->publish($rule, 1, $ines);
        $half = intdiv(self::DRAINED, 2);
        $begin = static function () use ($db, $rule, $half): void {
            $db->statement('TRUNCATE scheduled_lines');
            $db->statement('TRUNCATE rule_runs');
            $db->statement('UPDATE records_agreement SET visits_left = NULL WHERE visits_left IS NOT NULL');
            $db->statement(
                "INSERT INTO rule_runs (id, rule_id, page, record_type, record_id, entry_id, started_at) SELECT seq, {$rule}, 1, "
                    ."'agreement', seq, 1, '2026-11-23 09:00:00' FROM seq_1_to_{$half}",
            );
            foreach (['set_fields', 'send_message'] as $place => $kind) {
                $db->statement(
                    'INSERT INTO scheduled_lines (kind, due_at, record_type, record_id, entry_id, run_id, rule_id, page, place) SELECT '
                        ."'{$kind}', DATE_ADD('2026-11-23 09:00:00', INTERVAL seq SECOND), 'agreement', seq, 1, seq, {$rule}, 1, {$place} "
                            ."FROM seq_1_to_{$half}",
                );
            }
        };
        $begin();
        app(HouseClock::class)->hold(new \DateTimeImmutable('2026-12-01 09:00:00'));
        $again = new RowsAgain($db);
        $again->watch(static fn () => app(LineWorker::class)->work(200));
        $begin();
        $seconds = self::drained(1);
        Figures::note("rows of 200 lines: {$again->said()}");
        $pdo = $db->getPdo();
        $from = hrtime(true);
        for ($batch = 0; $batch < self::DRAINED / 200; $batch++) {
            $pdo->beginTransaction();
            $read = $pdo->prepare("SELECT * FROM scheduled_lines WHERE status = 'inked' ORDER BY id LIMIT 200");
            $read->execute();
            $lines = $read->fetchAll(\PDO::FETCH_OBJ);
            $ids = implode(', ', array_column($lines, 'id'));
            $records = implode(', ', array_column($lines, 'record_id'));
            $pdo->query("SELECT * FROM records_agreement WHERE id IN ({$records}) FOR UPDATE")->fetchAll(\PDO::FETCH_OBJ);
            $again->write($pdo);
            $set = $pdo->prepare(
                "UPDATE records_agreement SET visits_left = 8, version = version + 1, updated_at = '2026-12-01 09:00:00' WHERE id = ?",
            );
            foreach (array_slice($lines, 0, 100) as $line) {
                $set->execute([$line->record_id]);
            }
            $pdo->exec("UPDATE scheduled_lines SET status = 'done' WHERE id IN ({$ids})");
            $pdo->exec('UPDATE rule_runs SET status = \'over\' WHERE id IN ('.implode(', ', array_column($lines, 'run_id')).')');
            $pdo->commit();
        }
        $floor = (hrtime(true) - $from) / 1e9;
        $beside = 'plain PDO, same rows, a statement a row';
        Figures::pair('drain 50,000 due lines (a field set, a message)', $seconds, $beside, $floor, 's', 1.6);
        $begin();
        $one = self::drained(1);
        $begin();
        $two = self::drained(2);
        Figures::note("one worker drains in {$one} s, two in {$two} s");
        Figures::one('two workers are as fast as one, times', $one / $two, 'x', 'at least 1.5');
    }

    /** Drains with worker processes of their own. */
    private static function drained(int $workers): float
    {
        $from = hrtime(true);
        $running = [];
        for ($count = 0; $count < $workers; $count++) {
            // Its errors go where ours go, by not being told otherwise: to hand over our stream would set a file back to its beginning.
            $running[] = proc_open(
                [PHP_BINARY, '-d', 'opcache.enable_cli=1', __DIR__.'/drain.php', '2026-12-01 09:00:00'],
                [1 => ['file', '/dev/null', 'w']],
                $pipes,
            );
        }
        foreach ($running as $process) {
            proc_close($process);
        }
        $left = (int) app(Connection::class)->scalar("SELECT COUNT(*) FROM scheduled_lines WHERE status = 'pencilled'");
        if ($left > 0) {
            throw new \LogicException("{$left} lines were left.");
        }

        return round((hrtime(true) - $from) / 1e9, 1);
    }

    private static function records(Connection $db): void
    {
        $ines = Person::query()->where('handle', 'ines.okafor')->firstOrFail()->id;
        $customer = (int) $db->scalar('SELECT MIN(id) FROM records_customer');
        $db->statement('TRUNCATE records_agreement');
        $db->statement(
            "INSERT INTO records_agreement (id, version, title, customer, status, `end`, owner, created_at, updated_at)
            SELECT seq, 1, CONCAT('Bench ', seq), ?, 'running', '2027-12-05', ?, NOW(), NOW() FROM seq_1_to_".intdiv(self::DRAINED, 2),
            [$customer, $ines],
        );
        $db->statement('ANALYZE TABLE records_agreement');
    }
}
