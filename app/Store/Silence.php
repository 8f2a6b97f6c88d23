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
        $at = match ($trigger->sort) {
            'reply' => $db->scalar(
                "SELECT m.created_at FROM messages m WHERE m.record_type = ? AND m.record_id = ? AND m.channel <> 'app'
                AND NOT EXISTS (SELECT 1 FROM entries e WHERE e.record_type = m.record_type AND e.record_id = m.record_id AND e.kind = 'reply' AND e.id > m.entry_id) ORDER BY m.id DESC LIMIT 1",
                [$type, $id],
            ),
            'value' => $db->scalar(
                'SELECT IF(h.after = ?, e.at, NULL) FROM field_history h JOIN entries e ON e.id = h.entry_id WHERE h.record_type = ? AND h.record_id = ? AND h.field = ? ORDER BY h.entry_id DESC, h.id DESC LIMIT 1',
                [json_encode($trigger->value, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE), $type, $id, $trigger->field->name ?? ''],
            ),
            default => $db->scalar(
                'SELECT at FROM entries WHERE record_type = ? AND record_id = ? AND kind IN ('.implode(', ', array_map(static fn (string $kind): string => "'{$kind}'", FallsQuiet::BREAKS[$trigger->sort] ?? ["''"])).') ORDER BY id DESC LIMIT 1',
                [$type, $id],
            ),
        };

        return $at === null ? null : new \DateTimeImmutable("{$at}Z");
    }
}
