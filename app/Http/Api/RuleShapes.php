<?php

declare(strict_types=1);

namespace App\Http\Api;

use App\Http\Api\Shape\PageShape;
use App\Http\Api\Shape\ProblemShape;
use App\Http\Api\Shape\ReadingShape;
use App\Http\Api\Shape\RowShape;
use App\Http\Api\Shape\RuleShape;
use App\Http\Api\Shape\RuleSummary;
use App\Http\Api\Shape\WordShape;
use App\Store\Columns;
use App\Store\Company;
use App\Store\Refused;
use App\Store\RuleDoor;
use App\Work\HouseClock;
use Illuminate\Database\Connection;
use VividLedger\Rule\Reading\Problem;
use VividLedger\Rule\Reading\Row;
use VividLedger\Rule\Reading\RulePage;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Rule\Reading\Word;
use VividLedger\Rule\Trigger\ByHand;

/** Rules as the API gives them. */
final readonly class RuleShapes
{
    private const DAYS = 14;

    public function __construct(
        private Connection $db,
        private RuleReader $reader,
        private RuleDoor $door,
        private HouseClock $clock,
        private Company $company,
    ) {
    }

    public function reading(RulePage $page): ReadingShape
    {
        return new ReadingShape(
            array_map(static fn (Row $row): RowShape => new RowShape(
                $row->part->value, $row->at, $row->margin, $row->depth, $row->off, $row->after,
                array_map(static fn (Word $word): WordShape => new WordShape($word->text, $word->role->value, $word->at, $word->edit?->value, $word->on), $row->words),
            ), $page->rows),
            array_map(static fn (Problem $problem): ProblemShape => new ProblemShape($problem->at, $problem->code, $problem->message, $problem->position), $page->problems),
            $page->aloud(),
        );
    }

    public function one(int $id): RuleShape
    {
        $row = $this->db->selectOne(
            'SELECT r.*, p.file, w.name AS draft_name FROM rules r LEFT JOIN rule_pages p ON p.rule_id = r.id AND p.number = r.page LEFT JOIN people w ON w.id = r.draft_by WHERE r.id = ?',
            [$id],
        ) ?? throw new Refused('not_found', "There is no rule {$id}.", 404);
        $file = $this->decoded($row->draft ?? $row->file);
        $since = $this->db->scalar('SELECT e.at FROM rule_spells s JOIN entries e ON e.id = s.from_entry WHERE s.rule_id = ? AND s.to_entry IS NULL', [$id]);

        return new RuleShape(
            (int) $row->id, $row->name, $row->record_type, $row->status, $row->page === null ? null : (int) $row->page, $row->draft !== null, $row->either_or, (int) $row->draft_version,
            Columns::iso($row->draft_at), $row->draft_name, Columns::iso($since), $this->firings([(int) $row->id])[(int) $row->id][0] ?? 0, (int) $this->db->scalar("SELECT COUNT(*) FROM rule_runs WHERE rule_id = ? AND status = 'in_play'", [$id]),
            $file, $this->reading($row->draft === null ? $this->reader->read($file) : $this->door->read($file)),
        );
    }

    /** @return list<RuleSummary> in the order of the rules */
    public function all(?string $status = null): array
    {
        $rows = $this->db->select(
            'SELECT r.*, p.file FROM rules r LEFT JOIN rule_pages p ON p.rule_id = r.id AND p.number = r.page WHERE ? IS NULL OR r.status = ? ORDER BY r.position, r.id',
            [$status, $status],
        );
        $firings = $this->firings(array_map(static fn (object $row): int => (int) $row->id, $rows));

        return array_map(function (object $row) use ($firings): RuleSummary {
            $page = $this->reader->read($this->decoded($row->file ?? $row->draft));
            [$count, $last, $days] = $firings[(int) $row->id] ?? [0, null, array_fill(0, self::DAYS, 0)];

            return new RuleSummary(
                (int) $row->id, $row->name, $row->record_type, $row->status, $row->page === null ? null : (int) $row->page, $row->draft !== null, $row->either_or,
                $page->aloud(), $row->status === 'in_force' ? ($page->problems[0]->message ?? null) : null, ($page->rule?->trigger instanceof ByHand), $count, Columns::iso($last), $days,
            );
        }, $rows);
    }

    /** @return list<PageShape> the newest first */
    public function pages(int $id): array
    {
        $rows = $this->db->select('SELECT p.*, w.name AS who FROM rule_pages p JOIN people w ON w.id = p.published_by WHERE p.rule_id = ? ORDER BY p.number DESC', [$id]);

        return array_map(function (object $row): PageShape {
            $file = $this->decoded($row->file);

            return new PageShape((int) $row->number, (string) Columns::iso($row->published_at), $row->who, $row->why, $file, $this->reading($this->reader->read($file)));
        }, $rows);
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
        $places = implode(', ', array_fill(0, count($ids), '?'));
        $firings = [];
        // Counted by the minute, the smallest step in which zones differ, so that a busy rule stays a short answer.
        foreach ($this->db->select("SELECT rule_id, MAX(at) AS latest, COUNT(*) AS n FROM entries WHERE rule_id IN ({$places}) AND kind IN ('fired', 'gathered') AND at >= ? GROUP BY rule_id, LEFT(at, 16) ORDER BY latest", [...$ids, Columns::moment($now->modify('-30 days'))]) as $row) {
            $firing = $firings[(int) $row->rule_id] ?? [0, null, array_fill(0, self::DAYS, 0)];
            $firing[0] += (int) $row->n;
            $firing[1] = $row->latest;
            $day = (new \DateTimeImmutable($row->latest.'Z'))->setTimezone($zone);
            $ago = (int) $day->setTime(0, 0)->diff($now->setTime(0, 0))->days;
            if ($ago < self::DAYS) {
                $firing[2][self::DAYS - 1 - $ago] += (int) $row->n;
            }
            $firings[(int) $row->rule_id] = $firing;
        }

        return $firings;
    }

    /** @return array<mixed> */
    private function decoded(?string $file): array
    {
        $decoded = json_decode($file ?? '[]', true, 512, JSON_THROW_ON_ERROR);

        return is_array($decoded) ? $decoded : [];
    }
}
