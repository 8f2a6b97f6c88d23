<?php

declare(strict_types=1);

namespace Tests\App\Timing;

use App\Store\HouseClock;
use App\Work\Timing\ClockTurner;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\TimeTestCase;

/** Turning the house clock forward: everything in between happens, in order, at its own time. */
final class HouseClockTest extends TimeTestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        config(['ledger.clock_may_turn' => true]);
    }

    public function test_a_week_passes_in_order(): void
    {
        $this->inForce(self::CHASE);
        $ticket = $this->written();
        $dated = $this->inForce([
            'name' => 'Due', 'on' => 'ticket',
            'when' => ['kind' => 'date', 'field' => 'due', 'amount' => 0, 'unit' => 'day', 'time' => '09:30'],
            'fires' => ['kind' => 'every_time'], 'lines' => [['kind' => 'comment', 'text' => 'due']],
        ]);
        $this->change($this->change($ticket, ['status' => 'waiting'])['record'], ['due' => '2026-11-28']);
        $before = $this->as('ines.okafor', 'GET', 'clock')->assertOk()->json();
        self::assertSame('2026-11-27T08:40:00Z', $before['nextDue']);
        $this->as('ines.okafor', 'POST', 'clock/turn', ['by' => 'week'])->assertStatus(202)->assertJsonPath('turn.turning', true);
        $this->assertRefused($this->as('ines.okafor', 'POST', 'clock/turn', ['by' => 'hour']), 409, 'wrong_state');
        $turner = $this->app->make(ClockTurner::class);
        $steps = 0;
        while ($turner->work(0.0) > 0) {
            $steps++;
        }
        // One for each moment at which something comes, and the last.
        self::assertLessThan(10, $steps);
        $after = $this->as('ines.okafor', 'GET', 'clock')->json();
        self::assertSame(
            [false, '2026-12-01T08:40:00Z', '2026-12-01T08:40:00Z'],
            [$after['turn']['turning'], $after['turn']['to'], $after['turn']['reached']],
        );
        self::assertEqualsWithDelta(strtotime('2026-12-01T08:40:00Z'), $this->app->make(HouseClock::class)->now()->getTimestamp(), 30);
        self::assertSame(
            ['2026-11-27T08:40:00Z', '2026-11-28T08:30:00Z', '2026-11-29T08:00:00Z'],
            array_values(array_unique(array_reverse(array_column(
                array_filter(
                    $after['turn']['entries'],
                    static fn (array $entry): bool => in_array($entry['kind'], ['line', 'fired'], true),
                ),
                'at',
            )))),
        );
        self::assertSame(1, DB::table('entries')->where(['kind' => 'fired', 'rule_id' => $dated])->count());
    }

    public function test_it_turns_forward_only_and_only_where_it_may(): void
    {
        $turn = fn (array $how) => $this->as('ines.okafor', 'POST', 'clock/turn', $how);
        $this->assertRefused($turn(['by' => 'next']), 409, 'nothing_due');
        $this->assertRefused($turn(['to' => '2026-11-01T00:00:00Z']), 422, 'invalid_values', '/to');
        $this->assertRefused($turn(['to' => '2036-11-01T00:00:00Z']), 422, 'invalid_values', '/to');
        $turn(['to' => 'some day'])->assertStatus(422);
        $this->as('odile.march', 'POST', 'clock/turn', ['by' => 'hour'])->assertForbidden();
        config(['ledger.clock_may_turn' => false]);
        $this->assertRefused($turn(['by' => 'hour']), 403, 'not_allowed');
        self::assertSame(0, DB::table('clock_turns')->count());
    }
}
