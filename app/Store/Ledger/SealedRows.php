<?php

declare(strict_types=1);

namespace App\Store\Ledger;

use App\Models\Ledger\Entry;
use App\Models\Ledger\EntrySeal;
use App\Models\Records\FieldChange;
use Illuminate\Database\Connection;

/**
 * Entries with all that they keep, in the order of their numbers, and what each is hashed as: a list of texts in JSON, so that nothing
 * can move from one value into the next. Read without models, for there may be millions.
 */
final readonly class SealedRows
{
    private const COLUMNS = 'e.id, e.kind, e.at, e.actor_id, e.via, e.record_type, e.record_id, e.version, e.rule_id, e.page, e.task_id, '
        .'e.cause_id, e.data, e.request';

    private const CHUNK = 4000;

    private const AS_TEXT = JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_THROW_ON_ERROR;

    public function __construct(private Connection $db)
    {
    }

    /**
     * @param  int  $after  number of the entry before the first
     * @return iterable<int, array{string, ?string}> what is hashed of each, and its seal where it has one; by its number
     */
    public function between(int $after, int $upto): iterable
    {
        $pdo = $this->db->getPdo();
        // A number and its digits are the same here, whatever a driver makes of them.
        $entries = $pdo->prepare('SELECT '.self::COLUMNS.', s.hash FROM `'.Entry::tableName().'` e LEFT JOIN `'.EntrySeal::tableName()
            .'` s ON s.entry_id = e.id WHERE e.id > ? AND e.id <= ? ORDER BY e.id LIMIT '.self::CHUNK);
        $changes = $pdo->prepare('SELECT entry_id, record_type, record_id, field, `before`, `after` FROM `'.FieldChange::tableName()
            .'` WHERE entry_id > ? AND entry_id <= ? ORDER BY entry_id, id');
        $pdo->setAttribute(\PDO::ATTR_STRINGIFY_FETCHES, true);
        try {
            do {
                $entries->execute([$after, $upto]);
                $rows = $entries->fetchAll(\PDO::FETCH_NUM);
                if ($rows === []) {
                    return;
                }
                $last = (int) $rows[count($rows) - 1][0];
                $changes->execute([$after, $last]);
                $kept = [];
                foreach ($changes->fetchAll(\PDO::FETCH_NUM) as $change) {
                    $kept[$change[0]] = ($kept[$change[0]] ?? '').json_encode($change, self::AS_TEXT);
                }
                foreach ($rows as $row) {
                    $seal = array_pop($row);
                    // Those of before this was kept were hashed without it.
                    if ($row[13] === null) {
                        unset($row[13]);
                    }
                    yield (int) $row[0] => [json_encode($row, self::AS_TEXT).($kept[$row[0]] ?? ''), $seal];
                }
                $after = $last;
            } while (count($rows) === self::CHUNK);
        } finally {
            $pdo->setAttribute(\PDO::ATTR_STRINGIFY_FETCHES, false);
        }
    }

    public static function hash(string $before, string $content): string
    {
        return hash('sha256', $before.$content, true);
    }
}
