<?php

declare(strict_types=1);

namespace App\Work;

use App\Store\Columns;
use App\Store\SchemaStore;
use Illuminate\Database\Connection;
use VividLedger\Rule\Rule;
use VividLedger\Rule\Trigger\FallsQuiet;
use VividLedger\Schema\RecordType;

/** Finds the records on which something of a sort last happened so long ago, by the entries of that time. */
final readonly class QuietRecords implements Finds
{
    private const AHEAD = 5;

    public function __construct(
        private Connection $db,
        private SchemaStore $schemas,
        private Clocks $clocks,
    ) {
    }

    public function between(Rule $rule, \DateTimeImmutable $after, \DateTimeImmutable $until, int $cursor, int $chunk): array
    {
        $trigger = self::trigger($rule);
        $type = $this->schemas->schema()->types[$rule->on];
        [$calendar, $zone] = $this->clocks->company();
        [$from, $to] = $trigger->due->bases($after, $until, $zone, $calendar);
        $found = [];
        do {
            $rows = $this->last($type, $trigger, Columns::moment($from), Columns::moment($to), $cursor, $chunk);
            foreach ($rows as $row) {
                $cursor = (int) $row->id;
                $moment = $trigger->due->from(new \DateTimeImmutable("{$row->at}Z"), $zone, $calendar);
                if ($moment > $after && $moment <= $until) {
                    $found[$cursor] = [(int) $row->record_id, $trigger->occasion($cursor)];
                }
            }
        } while (count($rows) === $chunk && count($found) < $chunk);

        return $found;
    }

    public function next(Rule $rule, \DateTimeImmutable $after): ?\DateTimeImmutable
    {
        $trigger = self::trigger($rule);
        $type = $this->schemas->schema()->types[$rule->on];
        [$calendar, $zone] = $this->clocks->company();
        $from = $trigger->due->bases($after, $after, $zone, $calendar)[0];
        $cursor = 0;
        do {
            $rows = $this->last($type, $trigger, Columns::moment($from), '9999-12-31 23:59:59', $cursor, self::AHEAD);
            foreach ($rows as $row) {
                $cursor = (int) $row->id;
                $moment = $trigger->due->from(new \DateTimeImmutable("{$row->at}Z"), $zone, $calendar);
                if ($moment > $after) {
                    return $moment;
                }
            }
        } while (count($rows) === self::AHEAD);

        return null;
    }

    /** @return array<object> what happened in a time and was the last of its sort on its record */
    private function last(RecordType $type, FallsQuiet $trigger, string $from, string $to, int $cursor, int $chunk): array
    {
        if ($trigger->sort === 'reply') {
            // Counted from the last message that went out, unless somebody has answered since.
            return $this->db->select(
                "SELECT m.id, m.record_id, m.created_at AS at FROM messages m WHERE m.record_type = ? AND m.record_id > 0 AND m.channel <> 'app' AND m.created_at BETWEEN ? AND ? AND m.id > ?
                AND NOT EXISTS (SELECT 1 FROM messages n WHERE n.record_type = m.record_type AND n.record_id = m.record_id AND n.channel <> 'app' AND n.id > m.id)
                AND NOT EXISTS (SELECT 1 FROM entries e WHERE e.record_type = m.record_type AND e.record_id = m.record_id AND e.kind = 'reply' AND e.id > m.entry_id) ORDER BY m.id LIMIT {$chunk}",
                [$type->name, $from, $to, $cursor],
            );
        }
        if ($trigger->sort === 'value') {
            $value = json_encode($trigger->value, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE);

            return $this->db->select(
                "SELECT h.id, h.record_id, e.at FROM entries e JOIN field_history h ON h.entry_id = e.id WHERE e.at BETWEEN ? AND ? AND e.record_type = ? AND h.record_type = e.record_type AND h.record_id = e.record_id
                AND h.field = ? AND h.after = ? AND h.id > ?
                AND NOT EXISTS (SELECT 1 FROM field_history l WHERE l.record_type = h.record_type AND l.record_id = h.record_id AND l.field = h.field AND l.entry_id > h.entry_id) ORDER BY h.id LIMIT {$chunk}",
                [$from, $to, $type->name, $trigger->field->name ?? '', $value, $cursor],
            );
        }
        $kinds = "'".implode("', '", FallsQuiet::BREAKS[$trigger->sort])."'";

        return $this->db->select(
            "SELECT e.id, e.record_id, e.at FROM entries e WHERE e.at BETWEEN ? AND ? AND e.record_type = ? AND e.kind IN ({$kinds}) AND e.id > ?
            AND NOT EXISTS (SELECT 1 FROM entries l WHERE l.record_type = e.record_type AND l.record_id = e.record_id AND l.id > e.id AND l.kind IN ({$kinds})) ORDER BY e.id LIMIT {$chunk}",
            [$from, $to, $type->name, $cursor],
        );
    }

    private static function trigger(Rule $rule): FallsQuiet
    {
        return $rule->trigger instanceof FallsQuiet ? $rule->trigger : throw new \LogicException('This rule waits for no silence.');
    }
}
