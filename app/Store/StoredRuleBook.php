<?php

declare(strict_types=1);

namespace App\Store;

use Illuminate\Database\Connection;
use VividLedger\Engine\RuleBook;
use VividLedger\Record\Change;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Rule\Rule;
use VividLedger\Rule\Trigger\Watch;

/** The rules in force, found through the index of what they watch; a save reads no more rules than it may need. */
final class StoredRuleBook implements RuleBook
{
    /** @var array<string, ?Rule> by rule, page and place; a page never changes, so it is read once for each process */
    private array $read = [];

    /** What pages only name, such as letters, can change; then every page is read again. */
    private ?int $keptVersion = null;

    public function __construct(
        private readonly Connection $db,
        private readonly RuleReader $reader,
    ) {
    }

    public function relevantTo(Change $change): array
    {
        $watches = Watch::keysOf($change);
        if ($watches === []) {
            return [];
        }
        $places = implode(', ', array_fill(0, count($watches), '?'));
        $rows = $this->db->select(
            "SELECT r.id, r.page, r.position, r.either_or, c.kept_version FROM rules r, company c WHERE c.id = 1 AND r.status = 'in_force' AND r.id IN
            (SELECT w.rule_id FROM rule_watches w WHERE w.record_type = ? AND w.watch IN ({$places})) ORDER BY r.position, r.id",
            [$change->record()->type, ...$watches],
        );
        $rules = [];
        foreach ($rows as $row) {
            if ($this->keptVersion !== (int) $row->kept_version) {
                $this->read = [];
                $this->keptVersion = (int) $row->kept_version;
            }
            $rule = $this->page((int) $row->id, (int) $row->page, $row->either_or);
            if ($rule !== null) {
                $rules[] = $rule;
            }
        }

        return $rules;
    }

    /** @return ?Rule null when the page no longer reads soundly, because something it names is gone */
    public function page(int $ruleId, int $number, string $eitherOr = ''): ?Rule
    {
        $key = "{$ruleId}:{$number}:{$eitherOr}";
        if (! array_key_exists($key, $this->read)) {
            $file = $this->db->scalar('SELECT file FROM rule_pages WHERE rule_id = ? AND number = ?', [$ruleId, $number]);
            $this->read[$key] = $this->reader->read(json_decode((string) $file, true, 512, JSON_THROW_ON_ERROR), $ruleId, $number, $eitherOr)->rule;
        }

        return $this->read[$key];
    }
}
