<?php

declare(strict_types=1);

namespace App\Store\Rules;

use App\Models\Rules\RuleWatch;
use VividLedger\Engine\RuleBook;
use VividLedger\Record\Change;
use VividLedger\Rule\Rule;
use VividLedger\Rule\Trigger\Watch;

/**
 * A rule book for many changes in one transaction: who watches the same fields is not looked up twice, and those who watch what the rules
 * found so far may write are looked up together.
 */
final class CachingRuleBook implements RuleBook
{
    /** @var array<string, array<string, list<\stdClass>>> rules by record type and key */
    private array $known = [];

    /** @var array<string, array{list<Rule>, bool, list<Rule>}> by record type and keys */
    private array $answers = [];

    /** @var array<int, Rule> those that were found */
    private array $found = [];

    /** @var array<string, string> what was asked first, by record type */
    private array $begun = [];

    public function __construct(private readonly StoredRuleBook $of)
    {
    }

    /** @return list<Rule> */
    public function relevantTo(Change $change): array
    {
        return $change->event?->kind->comesOnce() === true ? [] : $this->ask($change)[0];
    }

    public function mayTouchRuns(Change $change): bool
    {
        return $this->ask($change)[1];
    }

    public function readOver(Change $change): array
    {
        $over = [];
        foreach ($change->event === null ? $this->ask($change)[2] : [] as $rule) {
            array_push($over, ...$rule->readsOver($change));
        }

        return array_values(array_unique($over));
    }

    public function page(int $rule, int $number): ?Rule
    {
        return $this->of->page($rule, $number);
    }

    /**
     * @return array{list<Rule>, bool, list<Rule>} the rules that look at a change, whether it may touch runs in play, and the rules that
     *     read children of which it may be one
     */
    private function ask(Change $change): array
    {
        [$type, $watches] = [$change->record()->type, Watch::keysOf($change)];

        return $this->answers[$type.' '.implode(' ', $watches)] ??= $this->answer($type, $watches);
    }

    /**
     * @param  list<string>  $watches
     * @return array{list<Rule>, bool, list<Rule>}
     */
    private function answer(string $type, array $watches): array
    {
        $this->learn($type, $watches);
        [$rows, $reading, $mayTouch] = [[], [], false];
        foreach ($watches as $watch) {
            foreach ($this->known[$type][$watch] as $row) {
                $mayTouch = $mayTouch || $row->watch === RuleWatch::touching($watch);
                if ($row->watch === RuleWatch::reading($watch)) {
                    $reading[(int) $row->id] = $row;
                }
                if ($row->watch === $watch && (bool) $row->in_force) {
                    $rows[(int) $row->id] = $row;
                }
            }
        }
        usort($rows, static fn (\stdClass $one, \stdClass $other): int => [$one->position, $one->id] <=> [$other->position, $other->id]);
        $this->of->remember(array_map(
            static fn (\stdClass $row): array => [(int) $row->id, (int) $row->page, (string) $row->either_or],
            array_values(array_column($rows, null, 'id') + $reading),
        ));
        $rules = $this->pages($rows);
        foreach ($rules as $rule) {
            $this->found[$rule->id] = $rule;
        }

        return [$rules, $mayTouch, $this->pages($reading)];
    }

    /**
     * @param  array<\stdClass>  $rows
     * @return list<Rule> those whose pages read soundly
     */
    private function pages(array $rows): array
    {
        return array_values(array_filter(array_map(
            fn (\stdClass $row): ?Rule => $this->of->page((int) $row->id, (int) $row->page, $row->either_or),
            $rows,
        )));
    }

    /** @param  list<string>  $watches */
    private function learn(string $type, array $watches): void
    {
        $this->known[$type] ??= [];
        $new = array_diff_key(array_flip($watches), $this->known[$type]);
        if ($new === []) {
            return;
        }
        $isFirst = $this->known[$type] === [];
        $this->begun[$type] ??= implode(' ', $watches);
        foreach ($this->found as $rule) {
            $new += array_diff_key(array_flip($this->of->written($rule, $type)), $this->known[$type]);
        }
        if ($isFirst) {
            $new += array_flip($this->of->askedNext($type, $this->begun[$type]));
        }
        $keys = array_map(strval(...), array_keys($new));
        if (! $isFirst) {
            $this->of->wasAskedNext($type, $this->begun[$type], $keys);
        }
        $this->known[$type] += array_fill_keys($keys, []);
        foreach ($this->of->watching($type, $keys) as $row) {
            $this->known[$type][RuleWatch::untouching($row->watch)][] = $row;
        }
    }
}
