<?php

declare(strict_types=1);

namespace App\Store;

use Illuminate\Database\Connection;
use VividLedger\Rule\Trigger\FallsQuiet;

/** How long one record has been silent in the sense of a trigger; for many records at once there is QuietRecords. */
final class Silence
{
    /** @return ?\DateTimeImmutable when what the silence is counted from happened; null when nothing did, or it has been answered */
    public static function since(Connection $db, FallsQuiet $trigger, string $type, int $id): ?\DateTimeImmutable
    {
        $row = self::last($db, $trigger, $type, $id);

        return $row?->at === null ? null : new \DateTimeImmutable("{$row->at}Z");
    }

    /** @return ?int what names that silence, as QuietRecords names it */
    public static function mark(Connection $db, FallsQuiet $trigger, string $type, int $id): ?int
    {
        $row = self::last($db, $trigger, $type, $id);

        return $row?->at === null ? null : (int) $row->id;
    }

    private static function last(Connection $db, FallsQuiet $trigger, string $type, int $id): ?object
    {
        return match ($trigger->sort) {
            'reply' => $db->selectOne(
                "SELECT m.id, m.created_at AS at FROM messages m WHERE m.record_type = ? AND m.record_id = ? AND m.channel <> 'app'
                AND NOT EXISTS (SELECT 1 FROM entries e WHERE e.record_type = m.record_type AND e.record_id = m.record_id AND e.kind = 'reply' AND e.id > m.entry_id) ORDER BY m.id DESC LIMIT 1",
                [$type, $id],
            ),
            'value' => $db->selectOne(
                'SELECT h.id, IF(h.after = ?, e.at, NULL) AS at FROM field_history h JOIN entries e ON e.id = h.entry_id WHERE h.record_type = ? AND h.record_id = ? AND h.field = ? ORDER BY h.entry_id DESC, h.id DESC LIMIT 1',
                [json_encode($trigger->value, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE), $type, $id, $trigger->field->name ?? ''],
            ),
            default => $db->selectOne(
                'SELECT id, at FROM entries WHERE record_type = ? AND record_id = ? AND kind IN ('.implode(', ', array_map(static fn (string $kind): string => "'{$kind}'", FallsQuiet::BREAKS[$trigger->sort] ?? ["''"])).') ORDER BY id DESC LIMIT 1',
                [$type, $id],
            ),
        };
    }
}
