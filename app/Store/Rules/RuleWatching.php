<?php

declare(strict_types=1);

namespace App\Store\Rules;

use App\Models\Rules\PublishedPage;
use App\Models\Rules\RuleWatch;
use App\Models\Rules\StoredRule;
use App\Models\Timing\SweepMark;
use App\Store\HouseClock;
use Illuminate\Database\Query\Builder;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Rule\Rule;
use VividLedger\Rule\Trigger\Swept;

/** What each rule in force watches, and from when on it is swept: by this a change finds its rules. */
final readonly class RuleWatching
{
    public function __construct(private RuleReader $reader, private HouseClock $clock)
    {
    }

    /** What touches runs, or what their lines read, stays watched as long as the rule is not retired, because runs stay on their pages. */
    public function watch(Rule $rule): void
    {
        $this->forget($rule->id);
        $rows = [];
        foreach (array_filter([$rule->watch(), $rule->watchAgain(), $rule->watchHand()]) as $watch) {
            foreach ($watch->keys() as $key) {
                $rows["{$watch->type} {$key}"] = ['record_type' => $watch->type, 'watch' => $key, 'rule_id' => $rule->id];
            }
        }
        foreach ($rule->watchRun()?->keys() ?? [] as $key) {
            $touching = RuleWatch::touching($key);
            $rows["{$rule->on} {$touching}"] = ['record_type' => $rule->on, 'watch' => $touching, 'rule_id' => $rule->id];
        }
        RuleWatch::rows()->insertOrIgnore(array_values($rows));
        $this->watchChildren($rule);
        if (! $rule->trigger instanceof Swept) {
            SweepMark::query()->whereKey($rule->id)->delete();
        }
    }

    /** Whoever alters children on which a page turns is to hold their parent, as that page does. */
    public function watchChildren(Rule $page): void
    {
        $rows = [];
        foreach ($page->watchChildren() as $watch) {
            foreach ($watch->keys() as $key) {
                $reading = RuleWatch::reading($key);
                $rows["{$watch->type} {$reading}"] = ['record_type' => $watch->type, 'watch' => $reading, 'rule_id' => $page->id];
            }
        }
        RuleWatch::rows()->insertOrIgnore(array_values($rows));
    }

    /** Reads a rule in force once more, because something it names has changed, and keeps what it watches up to date. */
    public function watchAgain(int $id): void
    {
        $page = StoredRule::query()->inForce()->whereKey($id)->value('page');
        $rule = $page === null ? null : $this->reader->read(PublishedPage::fileOf($id, $page), $id, $page)->rule;
        if ($rule !== null) {
            $this->watch($rule);
        }
    }

    /** A rule that time sets off is swept from now on; what came before it was in force is left as it is. */
    public function sweepFromNow(Rule $rule): void
    {
        if ($rule->trigger instanceof Swept) {
            SweepMark::query()->updateOrCreate(
                ['rule_id' => $rule->id],
                ['swept_until' => $this->clock->now(), 'sweeping_to' => null, 'at_id' => 0],
            );
        }
    }

    /** No change starts the rule any more; what touches its runs, and what their lines read, is still watched. */
    public function forget(int $rule): void
    {
        $this->of($rule)->where('watch', 'not like', RuleWatch::TOUCHING.'%')->where('watch', 'not like', RuleWatch::READING.'%')->delete();
    }

    public function forgetRunsToo(int $rule): void
    {
        $this->of($rule)->delete();
    }

    private function of(int $rule): Builder
    {
        return RuleWatch::rows()->where('rule_id', $rule);
    }
}
