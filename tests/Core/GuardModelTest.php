<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Tests\Core\Support\World;

/**
 * Random lives of a ticket under random rules, beside a reference so simple that it is plainly right: for each save it
 * asks only what the words of the rule say.
 */
final class GuardModelTest extends TestCase
{
    private const LIVES = 400;

    private const SAVES = 20;

    public function test_rules_fire_exactly_when_the_reference_says(): void
    {
        $times = ['every_time' => 0, 'becomes_true' => 0, 'once_per_record' => 0];
        for ($seed = 1; $seed <= self::LIVES; $seed++) {
            $random = new Randomizer(new Mt19937($seed));
            $pick = static fn (array $from): mixed => $from[$random->getInt(0, count($from) - 1)];
            $trigger = $pick([
                ['kind' => 'created'], ['kind' => 'created_or_changed'], ['kind' => 'changed'],
                ['kind' => 'changed', 'fields' => ['status']], ['kind' => 'changed', 'fields' => ['status', 'code']],
            ]);
            $guard = $pick(array_keys($times));
            $wanted = $pick(['open', 'waiting', 'closed']);
            $isNot = $random->getInt(0, 1) === 1;
            $rule = (new World)->rule([
                'when' => $trigger, 'fires' => ['kind' => $guard],
                'onlyIf' => ['kind' => 'all', 'of' => [['kind' => $isNot ? 'is_not' : 'is', 'field' => 'status', 'value' => $wanted]]],
            ]);
            $states = [];
            for ($save = 0; $save < self::SAVES; $save++) {
                $states[] = [
                    'status' => $pick(['open', 'waiting', 'closed', null]), 'code' => $pick(['x', 'y', null]),
                    'paid' => $random->getInt(0, 1) === 1,
                ];
            }
            $fired = array_map(static fn (array $names): bool => $names !== [], (new World)->saves([$rule], $states));
            $expected = $this->reference(
                $trigger,
                $guard,
                static fn (array $state): bool => ($state['status'] === $wanted) !== $isNot,
                $states,
            );

            self::assertSame($expected, $fired, "life {$seed}: ".json_encode([$trigger, $guard, $wanted, $isNot, $states]));
            $times[$guard] += count(array_filter($fired));
        }
        foreach ($times as $guard => $count) {
            self::assertGreaterThan(50, $count, "{$guard} has to come up");
        }
    }

    /**
     * @param  array<string, mixed>  $trigger
     * @param  callable(array<string, mixed>): bool  $holds
     * @param  list<array<string, mixed>>  $states
     * @return list<bool>
     */
    private function reference(array $trigger, string $guard, callable $holds, array $states): array
    {
        $fires = [];
        $everFired = false;
        foreach ($states as $index => $state) {
            $before = $states[$index - 1] ?? null;
            $changed = $before === null ? [] : array_keys(array_filter(
                $state,
                static fn (mixed $value, string $field): bool => $value !== $before[$field],
                ARRAY_FILTER_USE_BOTH,
            ));
            $started = match ($trigger['kind']) {
                'created' => $before === null,
                'changed' => $before !== null
                    && (isset($trigger['fields']) ? array_intersect($trigger['fields'], $changed) !== [] : $changed !== []),
                default => $before === null || $changed !== [],
            };
            $ready = match ($guard) {
                'becomes_true' => $before === null || ! $holds($before),
                'once_per_record' => ! $everFired,
                default => true,
            };
            $fires[] = $now = $started && $holds($state) && $ready;
            $everFired = $everFired || $now;
        }

        return $fires;
    }
}
