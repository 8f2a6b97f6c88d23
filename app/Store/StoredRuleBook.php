<?php

declare(strict_types=1);

namespace App\Store;

use Illuminate\Database\Connection;
use VividLedger\Engine\RuleBook;
use VividLedger\Record\Change;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Rule\Rule;

/** The rules in force, found through the index of what they watch; a save reads no more rules than it may need. */
final class StoredRuleBook implements RuleBook
{
    /** @var array<string, ?Rule> by rule and page; a page never changes, so it is read once for each process */
    private array $read = [];

    public function __construct(
        private readonly Connection $db,
        private readonly RuleReader $reader,
    ) {
    }

    public function relevantTo(Change $change): array
    {
        $watches = $change->before === null ? ['+'] : ['*', ...$change->fields()];
        if ($watches === ['*']) {
            return [];
        }
        $places = implode(', ', array_fill(0, count($watches), '?'));
        $rows = $this->db->select(
            "SELECT r.id, r.page, r.position FROM rules r WHERE r.status = 'in_force' AND r.id IN
            (SELECT w.rule_id FROM rule_watches w WHERE w.record_type = ? AND w.watch IN ({$places})) ORDER BY r.position, r.id",
            [$change->record()->type, ...$watches],
        );
        $rules = [];
        foreach ($rows as $row) {
            $rule = $this->page((int) $row->id, (int) $row->page);
            if ($rule !== null) {
                $rules[] = $rule;
            }
        }

        return $rules;
    }

    /** @return ?Rule null when the page no longer reads soundly, because something it names is gone */
    public function page(int $ruleId, int $number): ?Rule
    {
        $key = "{$ruleId}:{$number}";
        if (! array_key_exists($key, $this->read)) {
            $file = $this->db->scalar('SELECT file FROM rule_pages WHERE rule_id = ? AND number = ?', [$ruleId, $number]);
            $this->read[$key] = $this->reader->read(json_decode((string) $file, true, 512, JSON_THROW_ON_ERROR), $ruleId, $number)->rule;
        }

        return $this->read[$key];
    }
}
