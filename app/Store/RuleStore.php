<?php

declare(strict_types=1);

namespace App\Store;

use App\Work\HouseClock;
use App\Work\Starts;
use Illuminate\Database\Connection;
use VividLedger\Rule\Reading\Problem;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Rule\Rule;
use VividLedger\Rule\RuleStatus;
use VividLedger\Rule\Trigger\Swept;

/**
 * Rules and their pages. A page is never changed; publishing the draft makes the next one. Every step of a rule's life
 * is an entry, and the entries bound the spells in which a page was in force.
 */
final readonly class RuleStore
{
    public function __construct(
        private Connection $db,
        private SchemaStore $schemas,
        private RuleReader $reader,
        private RuleDoor $door,
        private HouseClock $clock,
        private Starts $starts,
        private RunMover $runs,
    ) {
    }

    /**
     * @param  array<mixed>  $file  a rule file, finished or not
     * @return int id of the new rule
     */
    public function draft(array $file, int $by): int
    {
        $type = $this->schemas->schema()->type(is_string($file['on'] ?? null) ? $file['on'] : '');
        if ($type === null) {
            throw new Refused('unknown_type', 'Say which records the rule is about.', 422, [['at' => '/on', 'code' => 'unknown_type', 'message' => 'There is no such record type.']]);
        }
        $now = Columns::moment($this->clock->now());

        return (int) $this->db->table('rules')->insertGetId([
            'record_type' => $type->name, 'name' => $this->name($file), 'status' => RuleStatus::Draft->value,
            'position' => (int) $this->db->table('rules')->max('position') + 1,
            'draft' => $this->json($file), 'draft_at' => $now, 'draft_by' => $by, 'created_at' => $now,
        ]);
    }

    /**
     * @param  int  $version  of the draft as the person saw it
     * @param  array<mixed>  $file
     * @return int the draft's next version
     */
    public function write(int $id, int $version, array $file, int $by): int
    {
        return $this->db->transaction(function () use ($id, $version, $file, $by): int {
            $rule = $this->locked($id);
            $this->mustBeCurrent($rule, $version);
            if (($file['on'] ?? null) !== $rule->record_type) {
                throw new Refused('unknown_type', 'A rule stays with its record type. Start a new rule for other records.', 422, [['at' => '/on', 'code' => 'unknown_type', 'message' => 'A rule stays with its record type.']]);
            }
            $this->db->table('rules')->where('id', $id)->update([
                'draft' => $this->json($file), 'draft_version' => $version + 1, 'draft_at' => Columns::moment($this->clock->now()), 'draft_by' => $by,
                // A rule that was never in force goes by the name of its draft.
                ...($rule->page === null ? ['name' => $this->name($file)] : []),
            ]);

            return $version + 1;
        });
    }

    /** Throws the draft away; the page stays as it is. A rule without a page goes altogether. */
    public function discard(int $id): void
    {
        $this->db->transaction(function () use ($id): void {
            $rule = $this->locked($id);
            if ($rule->page === null) {
                $this->db->table('rules')->where('id', $id)->delete();
                $this->db->table('proofs')->where('rule_id', $id)->delete();
            } else {
                $this->db->table('rules')->where('id', $id)->update(['draft' => null, 'draft_at' => null, 'draft_by' => null, 'draft_version' => $rule->draft_version + 1]);
            }
        });
    }

    /**
     * Makes the draft the next page and puts it in force.
     *
     * @param  Existing  $existing  what happens to the records that match already
     * @param  int  $hours  over which a start of them is spread
     * @param  bool  $move  whether runs in play move to the new page; otherwise they stay on theirs
     *
     * @throws Refused with every problem at its word
     */
    public function publish(int $id, int $version, int $by, Existing $existing = Existing::Leave, int $hours = 0, bool $move = false, string $why = ''): void
    {
        $this->db->transaction(function () use ($id, $version, $by, $existing, $hours, $move, $why): void {
            $rule = $this->locked($id);
            $this->mustBeCurrent($rule, $version);
            if ($rule->draft === null) {
                throw new Refused('no_draft', 'There is nothing new to put in force.', 409);
            }
            $file = json_decode($rule->draft, true, 512, JSON_THROW_ON_ERROR);
            $number = 1 + (int) $this->db->table('rule_pages')->where('rule_id', $id)->max('number');
            $page = $this->door->read($file, $id, $number);
            if ($page->rule === null) {
                throw new Refused('unfinished_rule', 'The rule is not finished. '.count($page->problems).(count($page->problems) === 1 ? ' word wants' : ' words want').' mending.', 422, self::listed($page->problems));
            }
            $this->db->table('rule_pages')->insert([
                'why' => mb_substr($why, 0, 200),
                'rule_id' => $id, 'number' => $number, 'file' => $this->json($file), 'published_at' => Columns::moment($this->clock->now()), 'published_by' => $by,
            ]);
            $this->db->table('rules')->where('id', $id)->update([
                'status' => RuleStatus::InForce->value, 'page' => $number, 'name' => $page->rule->name,
                'draft' => null, 'draft_at' => null, 'draft_by' => null, 'draft_version' => $rule->draft_version + 1,
            ]);
            $entry = $this->entry('rule_in_force', $id, $number, $by);
            $this->endSpell($id, $entry);
            $this->beginSpell($id, $number, $entry);
            $this->watch($page->rule);
            $this->sweepFromNow($page->rule);
            $started = $this->starts->of($page->rule, $existing, $hours, $entry);
            $moved = $move ? $this->runs->move($page->rule, true) : null;
            $this->db->table('entries')->where('id', $entry)->update(['data' => json_encode(['existing' => $existing->value, 'records' => $started, ...($moved === null ? [] : ['runs' => $moved])], JSON_THROW_ON_ERROR)]);
        });
    }

    /** Moves a rule to another state: in force to paused and back, and either to retired. */
    public function move(int $id, RuleStatus $to, int $by): void
    {
        $this->db->transaction(function () use ($id, $to, $by): void {
            $rule = $this->locked($id);
            $from = RuleStatus::from($rule->status);
            $allowed = match ($to) {
                RuleStatus::Paused => $from === RuleStatus::InForce,
                RuleStatus::InForce => $from === RuleStatus::Paused || $from === RuleStatus::Retired,
                RuleStatus::Retired => $from === RuleStatus::InForce || $from === RuleStatus::Paused,
                RuleStatus::Draft => false,
            };
            if (! $allowed) {
                throw new Refused('wrong_state', "A rule that is {$this->said($from)} cannot become {$this->said($to)}.", 409);
            }
            $sound = null;
            if ($to === RuleStatus::InForce) {
                $sound = $this->sound($id, (int) $rule->page);
            }
            $this->db->table('rules')->where('id', $id)->update(['status' => $to->value]);
            $entry = $this->entry("rule_{$to->value}", $id, (int) $rule->page, $by);
            $this->endSpell($id, $entry);
            $this->db->delete("DELETE FROM rule_watches WHERE rule_id = ? AND watch NOT LIKE '~%'", [$id]);
            if ($sound !== null) {
                $this->beginSpell($id, (int) $rule->page, $entry);
                $this->watch($sound);
                $this->sweepFromNow($sound);
            }
            $this->moveLines($id, $to);
        });
    }

    /** While a rule is paused its pencilled lines wait, those that a person holds for that person still; when it is retired they go. */
    private function moveLines(int $id, RuleStatus $to): void
    {
        [$set, $where] = match ($to) {
            RuleStatus::Paused => ["status = 'held', held_code = 'rule_paused'", "status = 'pencilled'"],
            RuleStatus::InForce => ["status = 'pencilled', held_code = NULL", "status = 'held' AND held_code = 'rule_paused'"],
            default => [
                "status = 'struck', held_code = NULL, struck_code = 'rule_retired', struck_because = 'the rule was retired'",
                "status IN ('pencilled', 'held')",
            ],
        };
        $this->db->update("UPDATE scheduled_lines SET {$set} WHERE rule_id = ? AND {$where}", [$id]);
        if ($to === RuleStatus::Retired) {
            $this->db->update("UPDATE rule_runs SET status = 'over' WHERE rule_id = ? AND status = 'in_play'", [$id]);
            $this->db->table('rule_watches')->where('rule_id', $id)->delete();
        }
    }

    /** Reads a rule in force once more, because something it names has changed, and keeps what it watches up to date. */
    public function watchAgain(int $id): void
    {
        $row = $this->db->selectOne("SELECT page FROM rules WHERE id = ? AND status = 'in_force'", [$id]);
        if ($row === null) {
            return;
        }
        $file = (string) $this->db->scalar('SELECT file FROM rule_pages WHERE rule_id = ? AND number = ?', [$id, $row->page]);
        $rule = $this->reader->read(json_decode($file, true, 512, JSON_THROW_ON_ERROR), $id, (int) $row->page)->rule;
        if ($rule !== null) {
            $this->watch($rule);
        }
    }

    /**
     * @param  list<Problem>  $problems
     * @return list<array{at: string, code: string, message: string, position: ?int}>
     */
    public static function listed(array $problems): array
    {
        return array_map(static fn (Problem $problem): array => ['at' => $problem->at, 'code' => $problem->code, 'message' => $problem->message, 'position' => $problem->position], $problems);
    }

    private function sound(int $id, int $number): Rule
    {
        $file = (string) $this->db->scalar('SELECT file FROM rule_pages WHERE rule_id = ? AND number = ?', [$id, $number]);
        $page = $this->reader->read(json_decode($file, true, 512, JSON_THROW_ON_ERROR), $id, $number);

        return $page->rule ?? throw new Refused('unfinished_rule', 'Something this page names is gone. Mend it and publish the next page.', 422, self::listed($page->problems));
    }

    private function locked(int $id): object
    {
        return $this->db->selectOne('SELECT * FROM rules WHERE id = ? FOR UPDATE', [$id]) ?? throw new Refused('not_found', "There is no rule {$id}.", 404);
    }

    private function mustBeCurrent(object $rule, int $version): void
    {
        if ((int) $rule->draft_version !== $version) {
            $who = $rule->draft_by === null ? null : $this->db->scalar('SELECT name FROM people WHERE id = ?', [$rule->draft_by]);
            throw new Refused('stale_version', ($who ?? 'Somebody').' changed this rule after you opened it. Open it again to see how it reads now.', 409, more: ['version' => (int) $rule->draft_version]);
        }
    }

    private function entry(string $kind, int $rule, int $page, int $by): int
    {
        return Batch::insertForIds($this->db, 'entries', [[
            'kind' => $kind, 'at' => Columns::moment($this->clock->now()), 'actor_id' => $by, 'rule_id' => $rule, 'page' => $page, 'data' => '{}',
        ]])[0];
    }

    private function beginSpell(int $rule, int $page, int $entry): void
    {
        $this->db->table('rule_spells')->insert(['rule_id' => $rule, 'page' => $page, 'from_entry' => $entry]);
    }

    private function endSpell(int $rule, int $entry): void
    {
        $this->db->table('rule_spells')->where('rule_id', $rule)->whereNull('to_entry')->update(['to_entry' => $entry]);
    }

    /** The watch under which the index keeps what may touch runs in play. */
    public static function touching(string $watch): string
    {
        return "~{$watch}";
    }

    /** What touches runs stays watched as long as the rule is not retired, because runs stay on their pages. */
    private function watch(Rule $rule): void
    {
        $this->db->delete("DELETE FROM rule_watches WHERE rule_id = ? AND watch NOT LIKE '~%'", [$rule->id]);
        $rows = [];
        foreach (array_filter([$rule->watch(), $rule->watchAgain(), $rule->watchHand()]) as $watch) {
            foreach ($watch->keys() as $key) {
                $rows["{$watch->type} {$key}"] = ['record_type' => $watch->type, 'watch' => $key, 'rule_id' => $rule->id];
            }
        }
        foreach ($rule->watchRun()?->keys() ?? [] as $key) {
            $rows["{$rule->on} ~{$key}"] = ['record_type' => $rule->on, 'watch' => self::touching($key), 'rule_id' => $rule->id];
        }
        Batch::insert($this->db, 'rule_watches', array_values($rows), ' ON DUPLICATE KEY UPDATE rule_id = VALUES(rule_id)');
        if (! $rule->trigger instanceof Swept) {
            $this->db->table('sweeps')->where('rule_id', $rule->id)->delete();
        }
    }

    /** A rule that time sets off is swept from now on; what came before it was in force is left as it is. */
    private function sweepFromNow(Rule $rule): void
    {
        if ($rule->trigger instanceof Swept) {
            $this->db->statement('INSERT INTO sweeps (rule_id, swept_until) VALUES (?, ?) ON DUPLICATE KEY UPDATE swept_until = VALUES(swept_until), sweeping_to = NULL, at_id = 0', [$rule->id, Columns::moment($this->clock->now())]);
        }
    }

    /** @param  array<mixed>  $file */
    private function name(array $file): string
    {
        $name = is_string($file['name'] ?? null) ? trim($file['name']) : '';

        return $name === '' ? 'Untitled rule' : mb_substr($name, 0, RuleReader::NAME_LENGTH);
    }

    private function said(RuleStatus $status): string
    {
        return lcfirst($status->label());
    }

    /** @param  array<mixed>  $file */
    private function json(array $file): string
    {
        return json_encode($file, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES);
    }
}
