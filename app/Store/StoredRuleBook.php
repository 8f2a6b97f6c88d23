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
        return $this->ask($change)[0];
    }

    public function mayTouchRuns(Change $change): bool
    {
        return $this->ask($change)[1];
    }

    /** @return array{list<Rule>, bool} the rules that look at a change, and whether it may touch runs in play: one question */
    public function ask(Change $change): array
    {
        $watches = Watch::keysOf($change);
        if ($watches === []) {
            return [[], false];
        }
        $touches = array_map(RuleStore::touching(...), $watches);
        $places = implode(', ', array_fill(0, 2 * count($watches), '?'));
        $rows = $this->db->select(
            "SELECT r.id, r.page, r.either_or, r.status = 'in_force' AND NOT w.only_touches AS starts, w.touches, c.kept_version
            FROM (SELECT rule_id, MIN(watch LIKE '~%') AS only_touches, MAX(watch LIKE '~%') AS touches FROM rule_watches WHERE record_type = ? AND watch IN ({$places}) GROUP BY rule_id) w
            JOIN rules r ON r.id = w.rule_id JOIN company c ON c.id = 1 ORDER BY r.position, r.id",
            [$change->record()->type, ...$watches, ...$touches],
        );
        $rules = [];
        $touched = false;
        foreach ($rows as $row) {
            $touched = $touched || (bool) $row->touches;
            if ($this->keptVersion !== (int) $row->kept_version) {
                $this->read = [];
                $this->keptVersion = (int) $row->kept_version;
            }
            $rule = (bool) $row->starts ? $this->page((int) $row->id, (int) $row->page, $row->either_or) : null;
            if ($rule !== null) {
                $rules[] = $rule;
            }
        }

        return [$rules, $touched];
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
