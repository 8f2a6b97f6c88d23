<?php

declare(strict_types=1);

namespace App\Work\Rules;

use App\Models\Access\HeldCode;
use App\Models\Ledger\Entry;
use App\Models\Rules\PublishedPage;
use App\Models\Rules\RuleSpell;
use App\Models\Rules\StoredRule;
use App\Models\Timing\LineStatus;
use App\Models\Timing\RuleRun;
use App\Models\Timing\RunStatus;
use App\Models\Timing\ScheduledLine;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\RefusedFor;
use App\Store\Rules\Existing;
use App\Store\Rules\RuleDoor;
use App\Store\Rules\RuleStore;
use App\Store\Rules\RuleWatching;
use App\Store\Timing\RunMover;
use App\Store\Types\SchemaStore;
use App\Work\Timing\ExistingRecords;
use Illuminate\Database\Connection;
use VividLedger\Engine\StruckCode;
use VividLedger\Proofread\Level;
use VividLedger\Proofread\Proofreader;
use VividLedger\Proofread\Remark;
use VividLedger\Proofread\RuleAmongOthers;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Rule\Rule;
use VividLedger\Rule\RuleStatus;
use VividLedger\Shape\Node;
use VividLedger\Words\Words;

/**
 * The life of a rule. A page is never changed; publishing the draft makes the next one. Every step is an entry, and the entries
 * bound the spells in which a page was in force.
 */
final readonly class RulePublisher
{
    private const WHY_LENGTH = 200;

    public function __construct(
        private Connection $db,
        private RuleReader $reader,
        private RuleDoor $door,
        private RuleWatching $index,
        private HouseClock $clock,
        private ExistingRecords $existing,
        private RunMover $runs,
        private SchemaStore $schemas,
    ) {
    }

    /**
     * Makes the draft the next page and puts it in force.
     *
     * @param  Existing  $existing  what happens to the records that match already
     * @param  int  $hours  over which a start of them is spread
     * @param  bool  $move  whether runs in play move to the new page; otherwise they stay on theirs
     *
     * @throws DomainError with every problem at its word
     */
    public function publish(
        int $id, int $version, int $by, Existing $existing = Existing::Leave, int $hours = 0, bool $move = false, string $why = '',
    ): void {
        $this->db->transaction(function () use ($id, $version, $by, $existing, $hours, $move, $why): void {
            $stored = RuleStore::locked($id);
            RuleStore::mustBeCurrent($stored, $version);
            $file = $stored->draft ?? throw new DomainError(
                'no_draft',
                Words::say('There is nothing new to put in force.'),
                RefusedFor::Conflict,
            );
            $number = 1 + (int) $stored->pages()->max('number');
            $rule = $this->finished($file, $id, $number);
            $this->mustNotBlock($rule, $file);
            PublishedPage::query()->create([
                'rule_id' => $id, 'number' => $number, 'file' => $file, 'published_at' => $this->clock->now(), 'published_by' => $by,
                'why' => mb_substr($why, 0, self::WHY_LENGTH),
            ]);
            $stored->update(StoredRule::WITHOUT_DRAFT + [
                'status' => RuleStatus::InForce, 'page' => $number, 'name' => $rule->name, 'draft_version' => $stored->draft_version + 1,
            ]);
            $entry = $this->entry('rule_in_force', $stored, $by);
            $this->inForce($stored, $rule, $entry);
            $started = $this->existing->start($rule, $existing, $hours, $entry->id);
            $moved = $move ? ['runs' => $this->runs->move($rule, true)] : [];
            $entry->update(['data' => ['existing' => $existing->value, 'records' => $started] + $moved]);
        });
    }

    /** Moves a rule to another state: in force to paused and back, and either to retired. */
    public function move(int $id, RuleStatus $to, int $by): void
    {
        $this->db->transaction(function () use ($id, $to, $by): void {
            $stored = RuleStore::locked($id);
            $from = $stored->status;
            $allowed = match ($to) {
                RuleStatus::Paused => [RuleStatus::InForce],
                RuleStatus::InForce => [RuleStatus::Paused, RuleStatus::Retired],
                RuleStatus::Retired => [RuleStatus::InForce, RuleStatus::Paused],
                RuleStatus::Draft => [],
            };
            if (! in_array($from, $allowed, true)) {
                $message = 'A rule that is '.lcfirst($from->label()).' cannot become '.lcfirst($to->label()).'.';
                throw new DomainError('wrong_state', $message, RefusedFor::Conflict);
            }
            $rule = $to === RuleStatus::InForce ? $this->sound($stored) : null;
            $stored->update(['status' => $to]);
            $entry = $this->entry("rule_{$to->value}", $stored, $by);
            if ($rule === null) {
                $this->outOfForce($id, $entry);
            } else {
                $this->inForce($stored, $rule, $entry);
            }
            $this->moveLines($id, $to);
        });
    }

    private function inForce(StoredRule $stored, Rule $rule, Entry $entry): void
    {
        $this->outOfForce($stored->id, $entry);
        RuleSpell::query()->create(['rule_id' => $stored->id, 'page' => $rule->page, 'from_entry' => $entry->id]);
        $this->index->watch($rule);
        $this->index->sweepFromNow($rule);
    }

    private function outOfForce(int $rule, Entry $entry): void
    {
        RuleSpell::query()->where('rule_id', $rule)->whereNull('to_entry')->update(['to_entry' => $entry->id]);
        $this->index->forget($rule);
    }

    /** While a rule is paused its pencilled lines wait, those that a person holds for that person still; when it is retired they go. */
    private function moveLines(int $id, RuleStatus $to): void
    {
        $lines = ScheduledLine::rows()->where('rule_id', $id);
        if ($to === RuleStatus::Paused) {
            $lines->where('status', LineStatus::Pencilled)->update(['status' => LineStatus::Held, 'held_code' => HeldCode::RulePaused]);
        } elseif ($to === RuleStatus::InForce) {
            $lines->where('status', LineStatus::Held)->where('held_code', HeldCode::RulePaused)
                ->update(['status' => LineStatus::Pencilled, 'held_code' => null]);
        } else {
            $lines->whereIn('status', LineStatus::TO_COME)
                ->update(ScheduledLine::struck(StruckCode::RuleRetired, 'the rule was retired') + ['held_code' => null]);
            RuleRun::query()->inPlay()->where('rule_id', $id)->update(['status' => RunStatus::Over]);
            $this->index->forgetRunsToo($id);
        }
    }

    /** @param  array<mixed>  $file */
    private function finished(array $file, int $id, int $number): Rule
    {
        $page = $this->door->read($file, $id, $number);
        $message = Words::counted(
            count($page->problems),
            'The rule is not finished. {count} word wants mending.|The rule is not finished. {count} words want mending.',
        );

        return $page->rule ?? throw new DomainError('unfinished_rule', $message, RefusedFor::Invalid, RuleStore::listed($page->problems));
    }

    /**
     * What proofreading a rule found in the rule itself can keep it from being put in force.
     *
     * @param  array<array-key, mixed>  $file
     */
    private function mustNotBlock(Rule $rule, array $file): void
    {
        $remarks = Proofreader::read(new RuleAmongOthers($rule, new Node($file), $this->schemas->schema(), []));
        $blocking = array_values(array_filter($remarks, static fn (Remark $remark): bool => $remark->level === Level::Blocks));
        if ($blocking !== []) {
            throw new DomainError('blocked', "{$blocking[0]->message} {$blocking[0]->advice}", RefusedFor::Invalid, array_map(
                static fn (Remark $remark): array => ['at' => $remark->at, 'code' => $remark->code, 'message' => $remark->message],
                $blocking,
            ));
        }
    }

    private function sound(StoredRule $stored): Rule
    {
        $number = (int) $stored->page;
        $page = $this->reader->read(PublishedPage::fileOf($stored->id, $number), $stored->id, $number);
        $message = Words::say('Something this page names is gone. Mend it and publish the next page.');

        return $page->rule ?? throw new DomainError('unfinished_rule', $message, RefusedFor::Invalid, RuleStore::listed($page->problems));
    }

    private function entry(string $kind, StoredRule $rule, int $by): Entry
    {
        return Entry::query()->create([
            'kind' => $kind, 'at' => $this->clock->now(), 'actor_id' => $by, 'rule_id' => $rule->id, 'page' => $rule->page,
            'data' => (object) [],
        ]);
    }
}
