<?php

declare(strict_types=1);

namespace Bench;

use App\Models\People\Person;
use App\Store\Actor;
use App\Store\Records\SaveRecord;
use App\Store\Rules\RuleStore;
use App\Store\Types\SchemaStore;
use App\Work\Rules\RulePublisher;
use Illuminate\Database\Connection;
use Illuminate\Support\Facades\DB;

/**
 * A save on which three rules fire, over the store, beside plain PDO statements that write the same rows in one
 * transaction: the record, one entry for the save and one for each rule, field history, guard keys, a task, and what is
 * pencilled in for it.
 */
final class SaveBench
{
    private const TIMES = 60;

    private const TABLES = ['entries', 'field_history', 'guard_keys', 'tasks', 'scheduled_lines'];

    public static function run(): void
    {
        $db = app(Connection::class);
        $ines = Person::query()->where('handle', 'ines.okafor')->firstOrFail()->id;
        $bram = Person::query()->where('handle', 'bram.castellan')->firstOrFail()->id;
        $set = static fn (string $field, string $value): array => [
            'kind' => 'set_fields', 'set' => [['field' => $field, 'to' => ['kind' => 'value', 'value' => $value]]],
        ];
        $lines = [
            $set('review', 'needed'), $set('topic', 'visit'),
            [
                'kind' => 'give_task', 'to' => ['kind' => 'manager', 'of' => ['kind' => 'owner']], 'title' => 'Look at {number}',
                'due' => ['amount' => 1, 'unit' => 'day'],
            ],
        ];
        foreach ($lines as $index => $line) {
            $rule = app(RuleStore::class)->draft([
                'name' => "Bench {$index}", 'on' => 'ticket', 'when' => [
                    'kind' => 'changed', 'fields' => ['hours'],
                ], 'fires' => ['kind' => 'every_time'], 'lines' => [$line],
                'onlyIf' => [
                    'kind' => 'all',
                    'of' => [
                        ['kind' => 'is', 'field' => 'priority', 'value' => 'urgent'],
                        ['kind' => 'is_not', 'field' => 'status', 'value' => 'closed'],
                    ],
                ],
            ], $ines);
            app(RulePublisher::class)->publish($rule, 1, $ines);
        }
        $type = app(SchemaStore::class)->schema()->types['ticket'];
        $save = app(SaveRecord::class);
        $actor = new Actor($ines);
        $customer = $save->create(app(SchemaStore::class)->schema()->types['customer'], ['name' => 'Bench'], $actor)->record->id;
        $make = static fn (): int => $save->create(
            $type,
            ['subject' => 'Bench', 'customer' => $customer, 'priority' => 'urgent', 'status' => 'open', 'owner' => $bram],
            $actor,
        )->record->id;
        $id = $make();
        $version = 1;
        $step = static function () use ($save, $type, $id, $actor, $db, &$version): void {
            // Both fields go back outside the clock of neither: the next save has to find the rules' work undone.
            $db->update("UPDATE records_ticket SET review = NULL, topic = 'invoice' WHERE id = ?", [$id]);
            $save->change($type, $id, $version, ['hours' => (string) ($version % 90)], $actor);
            $version++;
        };
        $before = self::rows();
        $step();
        $written = array_map(static fn (int $now, int $then): int => $now - $then, self::rows(), $before);
        Figures::note('rows a save writes besides the record: '.implode(
            ', ',
            array_map(static fn (string $table, int $rows): string => "{$rows} {$table}", self::TABLES, $written),
        ));
        $floor = new PlainSave($db->getPdo(), $make());
        $before = self::rows();
        $floor->save();
        $plain = array_map(static fn (int $now, int $then): int => $now - $then, self::rows(), $before);
        if ($plain !== $written) {
            throw new \LogicException('The floor writes other rows: '.implode(', ', $plain));
        }

        Timing::pair(
            'save: 3 rules fire, 2 fields set, 1 task',
            'plain PDO, same rows, one transaction',
            self::TIMES,
            $step,
            static fn () => $floor->save(),
            2.2,
        );
    }

    /** @return list<int> */
    private static function rows(): array
    {
        return array_map(static fn (string $table): int => DB::table($table)->count(), self::TABLES);
    }
}
