<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Tests\Core\Support\Line;
use Tests\Core\Support\SlipReference;
use Tests\Core\Support\World;
use VividLedger\Facts\View;
use VividLedger\Slip\NotTaken;
use VividLedger\Slip\ReplySlip;
use VividLedger\Slip\SlipClerk;
use VividLedger\Slip\SlipEvent;
use VividLedger\Slip\SlipMoved;
use VividLedger\Slip\SlipPlan;
use VividLedger\Slip\SlipStatus;
use VividLedger\Slip\TurnState;
use VividLedger\Time\Amount;
use VividLedger\Time\Due;
use VividLedger\Time\Unit;

/**
 * Random lives of a slip beside a reference that goes from hour to hour: whoever's turn it is is reminded as often as was said, passes
 * it on when their time is up, nobody is asked twice, and there is exactly one end.
 */
final class SlipClerkTest extends TestCase
{
    private const LIVES = 1500;

    private const HOURS = 400;

    private World $world;

    /** @var array<string, int> how often which kind of event was seen */
    private array $seen = [];

    protected function setUp(): void
    {
        $this->world = new World;
        $this->world->records['ticket:7'] = World::ticket([]);
    }

    public function test_random_lives_go_as_the_reference_says(): void
    {
        for ($seed = 1; $seed <= self::LIVES; $seed++) {
            $this->live($seed);
        }
        $enough = ['sent' => 900, 'nudged' => 2000, 'passed_on' => 500, 'unreached' => 200, 'answered' => 200, 'ended' => 500];
        foreach ($enough as $kind => $least) {
            self::assertGreaterThan($least, $this->seen[$kind] ?? 0, "{$kind} ".json_encode($this->seen));
        }
    }

    public function test_what_a_rule_ends_while_it_is_passed_on_is_left_as_it_is(): void
    {
        $line = new Line([1 => [true, false], 2 => [false, false], 3 => [true, false], 4 => [true, false]]);
        $line->endsAt = 3;
        $clerk = $this->clerk(new SlipPlan(within: self::hours(5), next: $line), $line);
        $slip = $clerk->begin($line->reach(1), 1)->slip;
        $moved = $clerk->passOn($slip);
        self::assertTrue($moved->isOvertaken);
        self::assertSame([['unreached', '', '']], self::told($moved->events), 'what came before is told');
        self::assertSame([2, 3], $line->set, 'and nobody behind is asked');
    }

    private function live(int $seed): void
    {
        $random = new Randomizer(new Mt19937($seed));
        $some = static fn (int $least, int $most): ?int => $random->getInt(0, 2) === 0 ? null : $random->getInt($least, $most);
        $people = [];
        for ($id = 1; $id <= $random->getInt(1, 5); $id++) {
            $people[$id] = [$random->getInt(0, 3) > 0, $random->getInt(0, 1) === 1];
        }
        [$every, $within, $texts] = [$some(1, 30), $some(1, 90), $some(1, 3)];
        $hasNext = $random->getInt(0, 3) > 0;
        $line = new Line($people);
        $clerk = fn (): SlipClerk => $this->clerk(new SlipPlan(
            $every === null ? null : self::hours($every), $texts, $within === null ? null : self::hours($within), $hasNext ? $line : null,
        ), $line);

        $this->world->now = new \DateTimeImmutable('2026-11-24T08:00:00Z');
        $reference = new SlipReference($people, $every, $within, $texts, $hasNext);
        $moved = $clerk()->begin($line->reach(1), 1);
        $this->same($reference->begin(), $moved, "seed {$seed}: begin");
        for ($hour = 1; $hour <= self::HOURS && $moved->slip->isOpen(); $hour++) {
            $this->world->now = $this->world->now->modify('+1 hour');
            $slip = $moved->slip;
            $wakes = $clerk()->wakesAt($slip);
            $act = $random->getInt(1, 120);
            $moved = match (true) {
                $act === 1 => $clerk()->answered($slip, ['Done']),
                $act === 2 => $this->tried(static fn (): SlipMoved => $clerk()->passOn($slip), $slip),
                $act === 3 => $clerk()->withdraw($slip),
                default => $clerk()->tend($slip),
            };
            $expected = match (true) {
                $act === 1 => $reference->answered(),
                $act === 2 => $reference->passOn($hour),
                $act === 3 => $reference->withdrawn(),
                default => $reference->hour($hour),
            };
            $this->same($expected, $moved, "seed {$seed}, hour {$hour}");
            if ($act > 3) {
                $isAwake = $wakes !== null && $wakes <= $this->world->now;
                self::assertSame($expected !== [], $isAwake, "seed {$seed}, hour {$hour}: it wakes for it");
            }
        }
        $this->ended($moved->slip, $clerk(), "seed {$seed}");
    }

    /** @param  \Closure(): SlipMoved  $act */
    private function tried(\Closure $act, ReplySlip $slip): SlipMoved
    {
        try {
            return $act();
        } catch (NotTaken) {
            return new SlipMoved($slip, []);
        }
    }

    /** Nobody twice, one turn at a time, and once it has ended nothing can be done any more. */
    private function ended(ReplySlip $slip, SlipClerk $clerk, string $life): void
    {
        $candidates = $slip->candidates();
        self::assertSame($candidates, array_values(array_unique($candidates)), $life);
        $waiting = array_filter($slip->turns, static fn ($turn): bool => $turn->state === TurnState::Waiting);
        self::assertCount($slip->isOpen() ? 1 : 0, $waiting, $life);
        if ($slip->isOpen()) {
            return;
        }
        self::assertNull($clerk->wakesAt($slip), $life);
        self::assertSame([], $clerk->tend($slip)->events, $life);
        foreach ([fn () => $clerk->answered($slip, []), fn () => $clerk->withdraw($slip), fn () => $clerk->passOn($slip)] as $act) {
            try {
                $act();
                self::fail("{$life}: something was done to a slip that has ended");
            } catch (NotTaken $not) {
                self::assertSame($slip->status === SlipStatus::Answered, str_contains($not->getMessage(), 'answered already'), $life);
            }
        }
    }

    /** @param  list<array{string, string, string}>  $expected */
    private function same(array $expected, SlipMoved $moved, string $when): void
    {
        $told = self::told($moved->events);
        self::assertSame($expected, $told, $when);
        foreach ($told as [$kind]) {
            $this->seen[$kind] = ($this->seen[$kind] ?? 0) + 1;
        }
    }

    /**
     * @param  list<SlipEvent>  $events
     * @return list<array{string, string, string}> kind, name, and the channel or the end
     */
    private static function told(array $events): array
    {
        return array_map(static fn (SlipEvent $event): array => [
            $event->kind->value, $event->to, $event->channel->value ?? $event->status->value ?? '',
        ], $events);
    }

    private function clerk(SlipPlan $plan, Line $line): SlipClerk
    {
        return new SlipClerk($plan, new View($this->world->records['ticket:7'], $this->world), $this->world->zone(), $line);
    }

    private static function hours(int $count): Due
    {
        return new Due(new Amount($count, Unit::Hour));
    }
}
