<?php

declare(strict_types=1);

namespace App\Work\Timing;

use App\Models\Columns;
use App\Models\Rules\GuardKey;
use App\Models\Timing\LineSort;
use App\Models\Timing\ScheduledLine;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\RefusedFor;
use App\Store\Rules\Existing;
use App\Store\Rules\GuardStore;
use App\Store\Setup\Company;
use App\Store\Sql\Batch;
use App\Store\Sql\Matching;
use App\Store\Types\SchemaStore;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Collection;
use VividLedger\Facts\GuardState;
use VividLedger\Rule\Rule;
use VividLedger\Words\Words;

/**
 * The records that match a rule when it is put in force: counted as done, or started, spread over hours. Of a rule on a date those
 * match whose moment has passed while the date itself is still ahead, of one on quiet those that are quiet already; the rest wait
 * for their time. Leaving them takes no work at all.
 */
final readonly class ExistingRecords
{
    private const CHUNK = 500;

    private const SAID = 200;

    public const MOST_HOURS = 720;

    public function __construct(
        private SchemaStore $schemas,
        private Company $company,
        private HouseClock $clock,
        private Agenda $agenda,
    ) {
    }

    /**
     * @param  int  $entry  of putting it in force
     * @return int how many records it was done for
     */
    public function start(Rule $rule, Existing $existing, int $hours, int $entry): int
    {
        if ($hours < 0 || $hours > self::MOST_HOURS) {
            throw new DomainError(
                'invalid_values',
                Words::say('Spread the start over 0 to {hours} hours.', hours: self::MOST_HOURS),
                RefusedFor::Invalid,
                [['at' => '/hours', 'code' => 'out_of_range', 'message' => Words::say(
                    'Spread the start over 0 to {hours} hours.',
                    hours: self::MOST_HOURS,
                )]],
            );
        }
        $found = $existing === Existing::Leave ? [] : $this->found($rule);

        return match ($existing) {
            Existing::Leave => 0,
            Existing::Start => $found === null ? $this->startAll($rule, $hours, $entry) : $this->startFound($rule, $found, $hours, $entry),
            Existing::Count => $this->count($rule, $found, $entry),
        };
    }

    /** How many records would be started or counted; null when that is all that meet the conditions. */
    public function number(Rule $rule): ?int
    {
        $found = $this->found($rule);

        return $found === null ? null : count($found);
    }

    /** @return ?list<array{int, string}> record and occasion; null for every record that meets the conditions */
    private function found(Rule $rule): ?array
    {
        return $this->agenda->finderFor($rule)?->existing($rule, $this->clock->now(), fn (): Builder => $this->matching($rule));
    }

    private function matching(Rule $rule): Builder
    {
        return Matching::query($rule->on, $rule->condition, $this->clock->now(), $this->company->zone());
    }

    private function startAll(Rule $rule, int $hours, int $entry): int
    {
        $spread = 'DATE_ADD(?, INTERVAL FLOOR((ROW_NUMBER() OVER (ORDER BY t.id) - 1) * ? / COUNT(*) OVER ()) SECOND) AS due_at';

        return ScheduledLine::pencilFrom($this->matching($rule)->selectRaw(
            $spread,
            [Columns::moment($this->clock->now()), $hours * 3600],
        ), [
            'sort' => LineSort::Start, 'kind' => 'start', 'record_type' => $rule->on, 'entry_id' => $entry, 'rule_id' => $rule->id,
            'page' => $rule->page, 'said' => mb_substr($rule->name, 0, self::SAID), 'occasion' => "start:{$rule->page}",
        ]);
    }

    /** @param  list<array{int, string}>  $found */
    private function startFound(Rule $rule, array $found, int $hours, int $entry): int
    {
        $now = $this->clock->now();
        $of = count($found);
        $at = static fn (int $index): \DateTimeImmutable => $now->modify('+'.intdiv($index * $hours * 3600, max(1, $of)).' seconds');
        Batch::insert(ScheduledLine::class, array_map(static fn (array $one, int $index): array => [
            'sort' => LineSort::Start, 'kind' => 'start', 'due_at' => Columns::moment($at($index)), 'record_type' => $rule->on,
            'record_id' => $one[0], 'entry_id' => $entry, 'rule_id' => $rule->id, 'page' => $rule->page,
            'said' => mb_substr($rule->name, 0, self::SAID), 'occasion' => $one[1],
        ], $found, array_keys($found)));

        return $of;
    }

    /** @param  ?list<array{int, string}>  $found */
    private function count(Rule $rule, ?array $found, int $entry): int
    {
        $type = $this->schemas->schema()->types[$rule->on];
        $occasions = $found === null ? null : array_column($found, 1, 0);
        $counted = 0;
        $at = Columns::moment($this->clock->now());
        $this->matching($rule)->chunkById(self::CHUNK,
            function (Collection $rows) use ($rule, $type, $occasions, $entry, $at, &$counted): void {
                $rest = $rows->filter(static fn (object $row): bool => $occasions === null || isset($occasions[(int) $row->id]));
                $ids = array_map(intval(...), array_values($rest->pluck('id')->all()));
                [$states, $used] = $ids === [] ? [[], []] : GuardStore::states($rule->id, $rule->on, $ids);
                $keys = [];
                foreach ($rest as $row) {
                    $id = (int) $row->id;
                    $state = $states[$id] ?? new GuardState;
                    $key = $rule->guard->key(Columns::record($type, $row), $occasions[$id] ?? "start:{$rule->page}", $state);
                    if (! isset($used[$id]["{$state->epoch}:{$key}"])) {
                        $keys[] = [
                            'rule_id' => $rule->id, 'record_type' => $rule->on, 'record_id' => $id, 'epoch' => $state->epoch,
                            'guard_key' => $key, 'entry_id' => $entry, 'at' => $at,
                        ];
                    }
                }
                Batch::insert(GuardKey::class, $keys);
                $counted += count($ids);
            }, 't.id', 'id');

        return $counted;
    }
}
