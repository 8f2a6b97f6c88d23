<?php

declare(strict_types=1);

namespace App\Http\Rules;

use App\Http\Records\RowShape;
use App\Http\Writing\EditorShapes;
use App\Http\Writing\ReadingShape;
use App\Models\Columns;
use App\Models\Ledger\Entry;
use App\Models\Rules\PublishedPage;
use App\Models\Rules\StoredRule;
use App\Models\Timing\RuleRun;
use App\Store\Access\AccessScope;
use App\Store\Access\SeenRules;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\Rules\RuleDoor;
use App\Store\Setup\Company;
use Illuminate\Database\Eloquent\Builder;
use VividLedger\Record\Value;
use VividLedger\Rule\Reading\RulePage;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Rule\RuleStatus;
use VividLedger\Shape\Problem;
use VividLedger\Shape\Row;
use VividLedger\Words\Words;

/** Rules as the API gives them. */
final readonly class RuleShapes
{
    private const DAYS = 14;

    public function __construct(
        private RuleReader $reader,
        private RuleDoor $door,
        private HouseClock $clock,
        private AccessScope $inSight,
        private Company $company,
        private SeenRules $seen,
    ) {
    }

    public function reading(RulePage $page): ReadingShape
    {
        return new ReadingShape(
            array_map(static fn (Row $row): RowShape => new RowShape(
                $row->part->value, $row->at, $row->margin, $row->depth, $row->off, $row->after,
                $row->when === null ? null : EditorShapes::word($row->when), array_map(EditorShapes::word(...), $row->words),
            ), $page->rows),
            array_map(static fn (Problem $problem): ProblemShape => new ProblemShape(
                $problem->at, $problem->code, $problem->message, $problem->position,
            ), $page->problems),
            $page->aloud(),
        );
    }

    public function one(int $id): RuleShape
    {
        $rule = $this->inSight->ofTypes(StoredRule::query())->with(['currentPage', 'drafter', 'currentSpell.begun'])->find($id)
            ?? throw self::missing($id);
        $file = $rule->draft ?? $rule->currentPage->file ?? [];
        $this->seen->may($file) && $this->seen->may($rule->currentPage->file ?? $file) ?: throw self::missing($id);
        $since = $rule->currentSpell?->begun?->at;

        return new RuleShape(
            $rule->id, $rule->name, $rule->record_type, $rule->status->value, $rule->page, $rule->draft !== null, $rule->either_or,
            $rule->draft_version, self::iso($rule->draft_at), $rule->drafter?->name, self::iso($since),
            $this->firings([$rule->id])[$rule->id][0] ?? 0, RuleRun::query()->inPlay()->where('rule_id', $id)->count(),
            $file, $this->reading($rule->draft === null ? $this->reader->read($file) : $this->door->read($file)),
        );
    }

    /** @return list<RuleSummary> in the order of the rules */
    public function all(?RuleStatus $status = null): array
    {
        $rules = $this->inSight->ofTypes(StoredRule::query())
            ->when($status !== null, static fn (Builder $rules): Builder => $rules->where('status', $status))
            ->with('currentPage')->orderBy('position')->orderBy('id')->get()
            ->filter(fn (StoredRule $rule): bool => $this->seen->may($rule->currentPage->file ?? $rule->draft ?? []));
        $firings = $this->firings(array_values($rules->pluck('id')->all()));

        return array_values($rules->map(function (StoredRule $rule) use ($firings): RuleSummary {
            $page = $this->reader->read($rule->currentPage->file ?? $rule->draft ?? []);
            [$count, $last, $days] = $firings[$rule->id] ?? [0, null, array_fill(0, self::DAYS, 0)];
            $problem = $rule->status === RuleStatus::InForce ? ($page->problems[0]->message ?? null) : null;

            $isByHand = $page->rule?->runsByHand() ?? false;

            return new RuleSummary(
                $rule->id, $rule->name, $rule->record_type, $rule->status->value, $rule->page, $rule->draft !== null, $rule->either_or,
                $page->aloud(), $problem, $isByHand, $count, Columns::iso($last), $days,
            );
        })->all());
    }

    private static function missing(int $id): DomainError
    {
        return DomainError::missing(Words::say('There is no rule {id}.', id: $id));
    }

    private static function iso(?\DateTimeImmutable $at): ?string
    {
        return $at === null ? null : Value::instantText($at);
    }

    /** @return list<PageShape> the newest first */
    public function pages(int $id): array
    {
        $pages = PublishedPage::query()->where('rule_id', $id)->with('publisher')->latest('number')->get()
            ->filter(fn (PublishedPage $page): bool => $this->seen->may($page->file));

        return array_values($pages->map(fn (PublishedPage $page): PageShape => new PageShape(
            $page->number, Value::instantText($page->published_at), $page->publisher->name, $page->why, $page->file,
            $this->reading($this->reader->read($page->file)),
        ))->all());
    }

    /**
     * @param  list<int>  $ids
     * @return array<int, array{int, ?string, list<int>}> firings in 30 days, the last of them, and those of each of the last 14 days
     */
    private function firings(array $ids): array
    {
        if ($ids === []) {
            return [];
        }
        $zone = $this->company->zone();
        $now = $this->clock->now()->setTimezone($zone);
        $firings = [];
        // Counted by the minute, the smallest step in which zones differ, so that a busy rule stays a short answer.
        $counted = Entry::rows()->whereIn('rule_id', $ids)->whereIn('kind', ['fired', 'gathered'])
            ->where('at', '>=', Columns::moment($now->modify('-30 days')))->groupByRaw('rule_id, LEFT(at, 16)')->orderBy('latest')
            ->selectRaw('rule_id, MAX(at) AS latest, COUNT(*) AS n');
        foreach ($counted->get() as $row) {
            [$count, , $days] = $firings[(int) $row->rule_id] ?? [0, null, array_fill(0, self::DAYS, 0)];
            $ago = (int) Columns::instant($row->latest)->setTimezone($zone)->setTime(0, 0)->diff($now->setTime(0, 0))->days;
            if ($ago < self::DAYS) {
                $days[self::DAYS - 1 - $ago] += (int) $row->n;
            }
            $firings[(int) $row->rule_id] = [$count + (int) $row->n, (string) $row->latest, array_values($days)];
        }

        return $firings;
    }
}
