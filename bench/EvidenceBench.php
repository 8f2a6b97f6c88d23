<?php

declare(strict_types=1);

namespace Bench;

use App\Evidence\Rehearsal\LookBacks;
use App\Store\Types\SchemaStore;
use Illuminate\Database\Connection;
use Tests\Core\Support\World;
use VividLedger\Proofread\Proofreader;
use VividLedger\Proofread\RuleAmongOthers;
use VividLedger\Rehearse\Proposer;
use VividLedger\Rehearse\Rehearsal;
use VividLedger\Rehearse\Script;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Rule\Rule;
use VividLedger\Shape\Node;

/** A rehearsal in the core, remarks for very many rules, and looking back over a million recorded changes. */
final class EvidenceBench
{
    private const CHANGES = 20;

    private const RECORDS = 50_000;

    public static function rehearsal(): void
    {
        $world = new World;
        $lines = [];
        for ($line = 1; $line <= 10; $line++) {
            $lines[] = [
                'kind' => $line % 2 === 0 ? 'remind' : 'give_task', 'to' => ['kind' => 'owner'],
                'at' => ['kind' => 'after', 'amount' => 9 * $line, 'unit' => 'day'],
            ] + ($line % 2 === 0 ? ['text' => 'Day {number}'] : ['title' => 'Task {number}', 'due' => null]);
        }
        $own = $world->rule(
            [
                'name' => 'Ten lines', 'onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'status', 'value' => 'waiting']]],
                'fires' => ['kind' => 'becomes_true'], 'lines' => $lines, 'until' => ['kind' => 'happened', 'event' => 'reply'],
            ],
            1,
        );
        $rules = [$own, ...self::others($world, 50)];
        $rehearsal = new Rehearsal(World::schema(), $world->zone());
        $opening = (new Proposer(World::schema(), $world->zone()))->opening($own, World::ticket(), $world, $world->now);
        $script = new Script(World::ticket(), $opening, [], 3);
        $times = [];
        for ($round = 0; $round < 60; $round++) {
            $start = hrtime(true);
            $rehearsal->play($script, $own, $rules, $world);
            $times[] = (hrtime(true) - $start) / 1e6;
        }
        Figures::one('rehearse: ten lines over 90 days, 50 other rules', Timing::median($times), 'ms', 'under 50');
    }

    public static function remarks(): void
    {
        $world = new World;
        $files = [];
        $rules = self::others($world, 200, $files);
        $start = hrtime(true);
        foreach ($rules as $place => $rule) {
            Proofreader::read(
                new RuleAmongOthers(
                    $rule,
                    new Node($files[$place]),
                    World::schema(),
                    array_values(array_filter($rules, static fn (Rule $other): bool => $other !== $rule)),
                    null,
                    $place,
                ),
            );
        }
        Figures::one('remarks: 200 rules of one type, each among the others', (hrtime(true) - $start) / 1e9, 's', 'under 1');
    }

    /**
     * @param  list<array<mixed>>  $files  filled with the files they were read from
     * @return list<Rule>
     */
    private static function others(World $world, int $count, array &$files = []): array
    {
        $rules = [];
        $fields = ['status' => ['open', 'waiting', 'closed'], 'priority' => ['low', 'high', 'urgent']];
        for ($number = 0; $number < $count; $number++) {
            $field = $number % 2 === 0 ? 'status' : 'priority';
            $set = $number % 3 === 0 ? ['code', 'A'.($number % 10)] : ['email', "a{$number}@x.example"];
            $files[] = $file = [
                'name' => "Other {$number}", 'when' => ['kind' => 'changed', 'fields' => [$field]],
                'onlyIf' => [
                    'kind' => 'all',
                    'of' => [
                        ['kind' => 'is', 'field' => $field, 'value' => $fields[$field][$number % 3]],
                        ['kind' => 'over', 'field' => 'share', 'value' => (string) ($number % 40)],
                        ['kind' => 'is_filled', 'field' => 'customer.plan'],
                    ],
                ],
                'fires' => ['kind' => 'every_time'], 'lines' => [World::set($set[0], $set[1])],
            ] + World::file();
            $rules[] = $world->rule($file, 100 + $number);
        }

        return $rules;
    }

    public static function lookBack(): void
    {
        $db = app(Connection::class);
        $db->statement('SET foreign_key_checks = 0');
        foreach (['entries', 'field_history', 'records_ticket'] as $table) {
            $db->statement("TRUNCATE {$table}");
        }
        [$records, $changes] = [self::RECORDS, self::CHANGES];
        // Every record is created, and then changes its priority again and again; entry numbers run through time.
        $priority = "ELT(1 + (seq * 7 + FLOOR(seq / {$records})) MOD 4, '\"low\"', '\"normal\"', '\"high\"', '\"urgent\"')";
        $db->statement(
            "INSERT INTO entries (id, kind, at, actor_id, via, record_type, record_id, version, data) SELECT seq, IF(seq <= {$records}, "
                ."'created', 'changed'), '2025-06-01' + INTERVAL seq * 40 SECOND, 1, 'person', 'ticket', 1 + seq MOD {$records}, 1 + "
                    ."FLOOR(seq / {$records}), '{}' FROM seq_1_to_".($records * $changes),
        );
        $db->statement(
            "INSERT INTO field_history (entry_id, record_type, record_id, field, `before`, `after`) SELECT seq, 'ticket', 1 + seq MOD "
                ."{$records}, 'priority', 'null', {$priority} FROM seq_1_to_".($records * $changes),
        );
        $db->statement(
            "INSERT INTO field_history (entry_id, record_type, record_id, field, `before`, `after`) SELECT seq, 'ticket', 1 + seq MOD "
                ."{$records}, 'status', 'null', '\"open\"' FROM seq_1_to_{$records}",
        );
        $db->statement('ANALYZE TABLE entries, field_history');
        $file = [
            'name' => 'Urgent', 'on' => 'ticket', 'when' => ['kind' => 'created_or_changed'],
            'onlyIf' => [
                'kind' => 'all',
                'of' => [
                    ['kind' => 'is', 'field' => 'priority', 'value' => 'urgent'],
                    ['kind' => 'is_not', 'field' => 'status', 'value' => 'closed'],
                ],
            ],
            'fires' => ['kind' => 'becomes_true'],
            'lines' => [['kind' => 'set_fields', 'set' => [['field' => 'review', 'to' => ['kind' => 'value', 'value' => 'needed']]]]],
        ];
        $rule = app(RuleReader::class)->read($file, 1, 1)->rule ?? throw new \LogicException('Not sound.');
        app(SchemaStore::class)->schema();

        $start = hrtime(true);
        $rows = 0;
        for ($from = 1; $from <= $records; $from += 250) {
            $rows += count($db->select(
                'SELECT e.id, e.record_id, e.kind, e.at, e.actor_id, e.via, h.field, h.`after` FROM entries e LEFT JOIN field_history h '
                    ."ON h.entry_id = e.id AND h.record_type = e.record_type AND h.record_id = e.record_id WHERE e.record_type = 'ticket' "
                        .'AND e.record_id BETWEEN ? AND ? ORDER BY e.record_id, e.id',
                [$from, $from + 249],
            ));
        }
        $floor = (hrtime(true) - $start) / 1e9;
        memory_reset_peak_usage();
        $start = hrtime(true);
        $first = null;
        $last = [];
        foreach (app(LookBacks::class)->over($rule, new \DateTimeImmutable('2020-01-01'), new \DateTimeImmutable('2040-01-01')) as $piece) {
            $first ??= (hrtime(true) - $start) / 1e9;
            $last = $piece;
        }
        $ours = (hrtime(true) - $start) / 1e9;
        $what = "look back: {$last['changes']} recorded changes, {$last['fires']} firings";
        Figures::pair($what, $ours, 'a plain read of the same '.number_format($rows).' rows', $floor, 's', 6.0);
        Figures::one('look back: the first piece of the answer', (float) $first, 's', 'within 2');
        Figures::one('look back: peak of memory', memory_get_peak_usage(true) / 1048576, 'MB', 'under 256');
    }
}
