<?php

declare(strict_types=1);

namespace Bench;

use App\Models\People\Person;
use App\Store\Actor;
use App\Store\Records\SaveMany;
use App\Store\Records\SaveRecord;
use App\Store\Rules\RuleStore;
use App\Store\Types\SchemaStore;
use App\Work\Rules\RulePublisher;
use Illuminate\Database\Connection;
use Illuminate\Support\Facades\DB;

/** A save that fires ten rules with twenty lines, and a change to 100,000 records with twenty rules in force. */
final class RuleBench
{
    private const TIMES = 40;

    private const RECORDS = 100_000;

    private const CHUNK = 500;

    public static function tenRules(): void
    {
        $db = app(Connection::class);
        self::clear($db);
        $ines = Person::query()->where('handle', 'ines.okafor')->firstOrFail()->id;
        $set = static fn (string $field, mixed $to): array => ['kind' => 'set_fields', 'set' => [['field' => $field, 'to' => $to]]];
        $task = [
            'kind' => 'give_task', 'to' => ['kind' => 'manager', 'of' => ['kind' => 'owner']], 'title' => 'Look at {number}',
            'due' => ['amount' => 1, 'unit' => 'day'],
        ];
        $pairs = [
            [
                $set('review', ['kind' => 'value', 'value' => 'needed']), $task,
            ], [$set('topic', ['kind' => 'value', 'value' => 'visit']), $task],
            [$set('cost', ['kind' => 'add', 'amount' => '1']), $task], [['kind' => 'comment', 'text' => 'Seen {number}'], $task],
            [$set('tags', ['kind' => 'add_member', 'member' => 'seen']), ['kind' => 'comment', 'text' => 'Tagged']], [$task, $task],
            [
                [
                    'kind' => 'send_message', 'channel' => 'app', 'to' => [['kind' => 'person', 'person' => ['kind' => 'owner']]],
                    'subject' => 'About {number}', 'body' => '<p>It is <span data-merge="priority">Priority</span>.</p>',
                ],
                $task,
            ],
            [
                $set('under_care', ['kind' => 'value', 'value' => true]), $task,
            ], [$set('closed_on', ['kind' => 'now']), $task], [$task, ['kind' => 'comment', 'text' => 'Done']],
        ];
        foreach ($pairs as $index => $lines) {
            self::rule(
                "Ten {$index}",
                ['kind' => 'changed', 'fields' => ['hours']],
                [
                    ['kind' => 'is', 'field' => 'priority', 'value' => 'urgent'],
                    ['kind' => 'is', 'field' => 'customer.plan', 'value' => 'care'],
                ],
                $lines,
                $ines,
            );
        }
        $type = app(SchemaStore::class)->schema()->types['ticket'];
        $save = app(SaveRecord::class);
        $actor = new Actor($ines);
        $customer = $save->create(
            app(SchemaStore::class)->schema()->types['customer'],
            ['name' => 'Bench', 'plan' => 'care'],
            $actor,
        )->record->id;
        $id = $save->create(
            $type,
            ['subject' => 'Bench', 'customer' => $customer, 'priority' => 'urgent', 'status' => 'open', 'owner' => $ines],
            $actor,
        )->record->id;
        $version = 1;
        $undo = static fn (): int => $db->update(
            "UPDATE records_ticket SET review = NULL, topic = 'invoice', cost = NULL, tags = NULL, under_care = 0, closed_on = NULL WHERE "
                .'id = ?',
            [$id],
        );
        $step = static function () use ($save, $type, $id, $actor, $undo, &$version): void {
            $undo();
            $save->change($type, $id, $version, ['hours' => (string) (1 + $version % 90)], $actor);
            $version++;
        };
        $again = new RowsAgain($db);
        $again->watch($step);
        Figures::note("rows it writes besides the record: {$again->said()}");
        $pdo = $db->getPdo();
        $floor = static function () use ($pdo, $again, $id, $undo): void {
            $undo();
            $pdo->beginTransaction();
            $pdo->query("SELECT * FROM records_ticket WHERE id = {$id} FOR UPDATE")->fetchAll();
            $pdo->exec(
                "UPDATE records_ticket SET hours = 7, review = 'needed', topic = 'visit', cost = 1, tags = 'seen', under_care = 1, "
                    ."closed_on = '2026-11-24', updated_at = NOW() WHERE id = {$id}",
            );
            $again->write($pdo);
            $pdo->commit();
        };
        Timing::pair('save: 10 rules fire, 20 lines', 'plain PDO, same rows, one transaction', self::TIMES, $step, $floor, 1.7);
        $queries = self::queries($db, $step);
        Figures::one('the questions that save asks', count($queries), '', 'few');
        Figures::one('  of them asked twice', count($queries) - count(array_unique($queries)), '', 'none');
    }

    public static function bulk(): void
    {
        $db = app(Connection::class);
        self::clear($db);
        $ines = Person::query()->where('handle', 'ines.okafor')->firstOrFail()->id;
        self::twenty($ines);
        $customer = app(SaveRecord::class)->create(
            app(SchemaStore::class)->schema()->types['customer'],
            ['name' => 'Bulk', 'plan' => 'care'],
            new Actor($ines),
        )->record->id;
        $db->statement('TRUNCATE records_ticket');
        $count = self::RECORDS;
        $db->statement(
            'INSERT INTO records_ticket (id, subject, customer, priority, status, owner, under_care, escalate, created_at, created_by, '
                ."updated_at, updated_by) SELECT NEXTVAL(records_ticket_ids), CONCAT('Ticket ', seq), {$customer}, 'normal', 'open', "
                    ."{$ines}, 0, 0, NOW(), {$ines}, NOW(), {$ines} FROM seq_1_to_{$count}",
        );
        $ids = array_map(static fn (object $row): int => (int) $row->id, $db->select('SELECT id FROM records_ticket ORDER BY id'));
        $type = app(SchemaStore::class)->schema()->types['ticket'];
        $save = app(SaveMany::class);
        $first = array_slice($ids, 0, self::CHUNK);
        $again = new RowsAgain($db);
        $again->watch(static fn () => $save->change($type, $first, ['priority' => 'high'], new Actor($ines)));
        Figures::note('rows for '.self::CHUNK.' records: '.$again->said());
        $rest = array_chunk(array_slice($ids, self::CHUNK), self::CHUNK);
        gc_collect_cycles();
        memory_reset_peak_usage();
        $began = hrtime(true);
        foreach ($rest as $chunk) {
            $save->change($type, $chunk, ['priority' => 'high'], new Actor($ines));
        }
        $ours = (hrtime(true) - $began) / 1e9;
        $memory = memory_get_peak_usage() / 1048576;
        $pdo = $db->getPdo();
        $began = hrtime(true);
        foreach ($rest as $chunk) {
            $pdo->beginTransaction();
            $in = implode(', ', $chunk);
            $pdo->query("SELECT * FROM records_ticket WHERE id IN ({$in}) FOR UPDATE")->fetchAll();
            $pdo->exec(
                "UPDATE records_ticket SET priority = 'low', review = NULL, tags = NULL, updated_at = NOW(), version = version + 1 WHERE "
                    ."id IN ({$in})",
            );
            $again->writeBatched($pdo, self::CHUNK);
            $pdo->commit();
        }
        $floor = (hrtime(true) - $began) / 1e9;
        $what = 'bulk: '.number_format(count($rest) * self::CHUNK).' records changed, 20 rules in force, 2 fire on each';
        Figures::pair($what, $ours, 'batched plain SQL, same rows', $floor, 's', 2.0);
        Figures::one('its peak of memory', $memory, 'MB', 'at most 256');
    }

    /** Twenty rules about tickets: most are about something else, one looks and stays silent, two fire on what is of high priority. */
    public static function twenty(int $ines): void
    {
        $task = ['kind' => 'comment', 'text' => 'x'];
        for ($index = 0; $index < 17; $index++) {
            self::rule(
                "Idle {$index}",
                ['kind' => 'changed', 'fields' => [['status', 'cost', 'due', 'owner', 'topic'][$index % 5]]],
                [['kind' => 'is_filled', 'field' => 'topic']],
                [$task],
                $ines,
            );
        }
        self::rule(
            'Looks and stays silent',
            ['kind' => 'changed', 'fields' => ['priority']],
            [['kind' => 'is', 'field' => 'customer.plan', 'value' => 'full_care']],
            [$task],
            $ines,
        );
        self::rule(
            'Sets a field',
            ['kind' => 'changed', 'fields' => ['priority']],
            [['kind' => 'is', 'field' => 'priority', 'value' => 'high']],
            [['kind' => 'set_fields', 'set' => [['field' => 'review', 'to' => ['kind' => 'value', 'value' => 'needed']]]]],
            $ines,
        );
        self::rule(
            'Sets another',
            ['kind' => 'created_or_changed'],
            [['kind' => 'is', 'field' => 'priority', 'value' => 'high']],
            [['kind' => 'set_fields', 'set' => [['field' => 'tags', 'to' => ['kind' => 'add_member', 'member' => 'bulk']]]]],
            $ines,
            'becomes_true',
        );
    }

    /** @return list<string> the questions a piece of work asks, as text */
    private static function queries(Connection $db, callable $work): array
    {
        $asked = [];
        $listening = true;
        DB::listen(static function ($query) use (&$asked, &$listening): void {
            if ($listening && str_starts_with(strtolower(ltrim($query->sql)), 'select')) {
                $asked[] = $query->sql.json_encode($query->bindings);
            }
        });
        $work();
        $listening = false;

        return $asked;
    }

    private static function clear(Connection $db): void
    {
        $db->update("UPDATE rules SET status = 'retired'");
        $db->delete('DELETE FROM rule_watches');
    }

    /**
     * @param  array<string, mixed>  $when
     * @param  list<array<string, mixed>>  $conditions
     * @param  list<array<string, mixed>>  $lines
     */
    private static function rule(string $name, array $when, array $conditions, array $lines, int $by, string $fires = 'every_time'): void
    {
        $id = app(RuleStore::class)->draft(
            [
                'name' => $name, 'on' => 'ticket', 'when' => $when, 'onlyIf' => ['kind' => 'all', 'of' => $conditions],
                'fires' => ['kind' => $fires], 'lines' => $lines,
            ],
            $by,
        );
        app(RulePublisher::class)->publish($id, 1, $by);
    }
}
