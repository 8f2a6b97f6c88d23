<?php

declare(strict_types=1);

namespace App\Store;

use App\Models\PublishedPage;
use App\Store\Sql\RulesAsked;
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
        private readonly RuleReader $reader,
    ) {
    }

    /** @return list<Rule> */
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
        $rows = RulesAsked::by($change->record()->type, $watches);
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
            $this->read[$key] = $this->reader->read(PublishedPage::fileOf($ruleId, $number), $ruleId, $number, $eitherOr)->rule;
        }

        return $this->read[$key];
    }
}
