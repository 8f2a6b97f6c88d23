<?php

declare(strict_types=1);

namespace App\Http\Rules;

use App\Evidence\Rules\PageSummaries;
use App\Http\Records\RowResource;
use App\Http\Writing\EditorResources;
use App\Http\Writing\ReadingResource;
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
final readonly class RuleResources
{
    private const DAYS = 14;

    public function __construct(
        private RuleReader $reader,
        private RuleDoor $door,
        private HouseClock $clock,
        private AccessScope $inSight,
        private Company $company,
        private SeenRules $seen,
        private PageSummaries $summaries,
    ) {
    }

    public function reading(RulePage $page): ReadingResource
    {
        return new ReadingResource(
            array_map(static fn (Row $row): RowResource => new RowResource(
                part: $row->part->value, at: $row->at, margin: $row->margin, depth: $row->depth, indent: $row->indent,
                heading: $row->heading, off: $row->off, after: $row->after,
                when: $row->when === null ? null : EditorResources::word($row->when),
                words: array_map(EditorResources::word(...), $row->words),
            ), $page->rows),
            array_map(static fn (Problem $problem): ProblemResource => new ProblemResource(
                $problem->at, $problem->code, $problem->message, $problem->position,
            ), $page->problems),
            $page->aloud(),
        );
    }

    public function one(int $id): RuleResource
    {
        $rule = $this->inSight->ofTypes(StoredRule::query())->with(['currentPage', 'drafter', 'currentSpell.begun'])->find($id)
            ?? throw self::missing($id);
        $file = $rule->draft ?? $rule->currentPage->file ?? [];
        $this->seen->may($file) && $this->seen->may($rule->currentPage->file ?? $file) ?: throw self::missing($id);
        $since = $rule->currentSpell?->begun?->at;

        return new RuleResource(
            id: $rule->id, name: $rule->name, on: $rule->record_type, status: $rule->status->value, page: $rule->page,
            hasDraft: $rule->draft !== null, eitherOr: $rule->either_or, draftVersion: $rule->draft_version,
            draftAt: self::iso($rule->draft_at), draftBy: $rule->drafter?->name, inForceSince: self::iso($since),
            entries: $this->firings([$rule->id])[$rule->id][0] ?? 0, inPlay: RuleRun::query()->inPlay()->where('rule_id', $id)->count(),
            file: $file, reading: $this->reading($rule->draft === null ? $this->reader->read($file) : $this->door->read($file)),
        );
    }

    /** @return list<RuleSummary> in the order of the rules */
    public function all(?RuleStatus $status = null): array
    {
        $rules = $this->inSight->ofTypes(StoredRule::query())
            ->when($status !== null, static fn (Builder $rules): Builder => $rules->where('status', $status))
            ->with('currentPage')->orderBy('position')->orderBy('id')->get();
        $files = [];
        foreach ($rules as $rule) {
            $file = $rule->currentPage->file ?? $rule->draft ?? [];
            if ($this->seen->may($file)) {
                $files[$rule->id] = $file;
            }
        }
        $firings = $this->firings(array_keys($files));
        $said = $this->summaries->of($files);

        $shown = $rules->filter(static fn (StoredRule $rule): bool => isset($files[$rule->id]));

        return array_values($shown->map(static function (StoredRule $rule) use ($files, $firings, $said): RuleSummary {
            $page = $said[$rule->id];
            [$count, $last, $days] = $firings[$rule->id] ?? [0, null, array_fill(0, self::DAYS, 0)];
            $problem = $rule->status === RuleStatus::InForce ? $page['problem'] : null;

            return new RuleSummary(
                id: $rule->id, name: $rule->name, purpose: (string) ($files[$rule->id]['purpose'] ?? ''), on: $rule->record_type,
                status: $rule->status->value, page: $rule->page,
                hasDraft: $rule->draft !== null, eitherOr: $rule->either_or, aloud: $page['aloud'], broken: $problem,
                byHand: $page['byHand'], entries: $count, lastFired: Columns::iso($last), days: $days,
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

    /** @return list<PageResource> the newest first */
    public function pages(int $id): array
    {
        $pages = PublishedPage::query()->where('rule_id', $id)->with('publisher')->latest('number')->get()
            ->filter(fn (PublishedPage $page): bool => $this->seen->may($page->file));

        return array_values($pages->map(fn (PublishedPage $page): PageResource => new PageResource(
            number: $page->number, publishedAt: Value::instantText($page->published_at), publishedBy: $page->publisher->name,
            why: $page->why, file: $page->file, reading: $this->reading($this->reader->read($page->file)),
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
        // The days begin when they begin in the company's zone, with the hour that a change of its clocks takes or gives.
        $midnights = array_map(
            static fn (int $ago): string => Columns::moment($now->setTime(0, 0)->modify("-{$ago} days")), range(self::DAYS - 1, 0),
        );
        $counted = Entry::rows()->whereIn('rule_id', $ids)->whereIn('kind', ['fired', 'gathered'])
            ->where('at', '>=', Columns::moment($now->modify('-30 days')))->groupBy('rule_id', 'day')->orderBy('day')
            ->selectRaw(
                'rule_id, '.implode(' + ', array_fill(0, self::DAYS, '(at >= ?)')).' AS day, MAX(at) AS latest, COUNT(*) AS n', $midnights,
            );
        foreach ($counted->get() as $row) {
            [$count, , $days] = $firings[(int) $row->rule_id] ?? [0, null, array_fill(0, self::DAYS, 0)];
            if ($row->day > 0) {
                $days[$row->day - 1] = (int) $row->n;
            }
            $firings[(int) $row->rule_id] = [$count + (int) $row->n, (string) $row->latest, array_values($days)];
        }

        return $firings;
    }
}
