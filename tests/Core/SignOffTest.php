<?php

declare(strict_types=1);

namespace Tests\Core;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Tests\Core\Support\World;
use VividLedger\Condition\ConditionReader;
use VividLedger\Facts\View;
use VividLedger\House\Person;
use VividLedger\People\PersonExpressions;
use VividLedger\People\Who;
use VividLedger\Schema\Field;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\SignOff\Answer;
use VividLedger\SignOff\Approvers;
use VividLedger\SignOff\Clerk;
use VividLedger\SignOff\LevelsUp;
use VividLedger\SignOff\Moved;
use VividLedger\SignOff\NamedPeople;
use VividLedger\SignOff\NotDecided;
use VividLedger\SignOff\Route;
use VividLedger\SignOff\RouteStep;
use VividLedger\SignOff\Seat;
use VividLedger\SignOff\SeatState;
use VividLedger\SignOff\SignOff;
use VividLedger\SignOff\SignOffEvent;
use VividLedger\SignOff\SignOffEventKind as Kind;
use VividLedger\SignOff\SignOffStatus;
use VividLedger\SignOff\UpToLimit;
use VividLedger\SignOff\WhenLate;
use VividLedger\Time\Amount;
use VividLedger\Time\Due;
use VividLedger\Time\Unit;

/**
 * Sign-offs: stories of each kind of step, and random lives, of which each sentence of the design is asked: exactly one outcome,
 * every step's count honoured, nobody decides twice or for themselves, and each ends once time runs out.
 */
final class SignOffTest extends TestCase
{
    private const LIVES = 1500;

    private World $world;

    protected function setUp(): void
    {
        $this->world = new World;
        // Edda is at the top; Tomas reports to her, Ines to Tomas; Gus has left, and Stan is the fallback.
        $this->world->records['ticket:7'] = World::ticket(['cost' => '700']);
    }

    public function test_the_tree_is_climbed_level_by_level_to_the_limit_that_suffices(): void
    {
        $this->limits([2 => '500', 1 => '5000']);
        $route = new Route([new RouteStep(new UpToLimit($this->who(['kind' => 'owner']), $this->cost()), inTurn: true)]);
        $asked = $this->clerk($route)->begin(3);
        self::assertSame([[2], [1]], [$this->waiting($asked->signOff), $asked->signOff->queue], 'Tomas first, and Edda after him');
        $asked = $this->clerk($route)->answer($asked->signOff, 2, Answer::Yes);
        self::assertSame([1], $this->waiting($asked->signOff));
        $agreed = $this->clerk($route)->answer($asked->signOff, 1, Answer::Yes, 'Fine');
        self::assertSame(SignOffStatus::Agreed, $agreed->signOff->status);
        self::assertSame(['said', 'step_agreed', 'ended'], self::kinds($agreed));
        // Less is for Tomas alone; more than anybody may decide goes to the top.
        $this->world->records['ticket:7'] = World::ticket(['cost' => '400']);
        self::assertSame([], $this->clerk($route)->begin(3)->signOff->queue);
        $this->world->records['ticket:7'] = World::ticket(['cost' => '9000']);
        self::assertSame([1], $this->clerk($route)->begin(3)->signOff->queue);
    }

    public function test_one_yes_of_several_is_enough_and_the_others_need_not_answer(): void
    {
        $route = new Route([new RouteStep($this->people(1, 2, 5), needed: 1)]);
        $asked = $this->clerk($route)->begin(3)->signOff;
        self::assertSame([1, 2, 5], $this->waiting($asked));
        $declined = $this->clerk($route)->answer($asked, 1, Answer::No, 'Too dear')->signOff;
        self::assertTrue($declined->isOpen(), 'one no leaves two who can say yes');
        $agreed = $this->clerk($route)->answer($declined, 5, Answer::Yes)->signOff;
        self::assertSame([SignOffStatus::Agreed, SeatState::Over], [$agreed->status, $agreed->seats[1]->state]);
        $this->refused('ended', fn (): Moved => $this->clerk($route)->answer($agreed, 2, Answer::Yes));
    }

    public function test_two_of_three(): void
    {
        $route = new Route([new RouteStep($this->people(1, 2, 5), needed: 2)]);
        $asked = $this->clerk($route)->begin(3)->signOff;
        $once = $this->clerk($route)->answer($asked, 1, Answer::No, 'No')->signOff;
        self::assertTrue($once->isOpen());
        self::assertSame(SignOffStatus::Declined, $this->clerk($route)->answer($once, 2, Answer::No, 'No')->signOff->status);
        $this->refused('no_comment', fn (): Moved => $this->clerk($route)->answer($asked, 1, Answer::No, ' '));
        $this->refused('not_asked', fn (): Moved => $this->clerk($route)->answer($once, 1, Answer::Yes));
        $this->refused('not_asked', fn (): Moved => $this->clerk($route)->answer($once, 3, Answer::Yes));
    }

    public function test_whoever_asks_never_decides_and_nobody_is_asked_twice(): void
    {
        $route = new Route([
            new RouteStep($this->people(3, 5)), new RouteStep($this->people(5, 1)),
            new RouteStep($this->people(1), onlyIf: ConditionReader::read(
                $this->context(),
                new Node(['kind' => 'is', 'field' => 'priority', 'value' => 'urgent'], '/onlyIf'),
                '',
            )),
        ]);
        $asked = $this->clerk($route)->begin(3)->signOff;
        self::assertSame([2, 5], $this->waiting($asked), 'Ines asked for it, so Tomas above her decides');
        $asked = $this->clerk($route)->answer($asked, 2, Answer::Yes)->signOff;
        $next = $this->clerk($route)->answer($asked, 5, Answer::Yes);
        self::assertSame([1], $this->waiting($next->signOff), 'Stan has said yes already');
        self::assertContains('said_before', self::kinds($next));
        $agreed = $this->clerk($route)->answer($next->signOff, 1, Answer::Yes);
        self::assertSame(SignOffStatus::Agreed, $agreed->signOff->status);
        self::assertContains('step_left_out', self::kinds($agreed), 'it is not urgent');
    }

    public function test_whoever_does_not_answer_is_reminded_and_then_it_goes_up(): void
    {
        $day = static fn (int $days): Due => new Due(new Amount($days, Unit::Day));
        $route = new Route([new RouteStep($this->people(2), within: $day(3), remindEvery: $day(1), late: WhenLate::NextUp)]);
        $signOff = $this->clerk($route)->begin(3)->signOff;
        $happened = [];
        while (($wakes = $this->clerk($route)->wakesAt($signOff)) !== null) {
            $this->world->now = $wakes;
            $moved = $this->clerk($route)->tend($signOff);
            $happened[] = $wakes->format('d').' '.implode(' ', self::kinds($moved));
            $signOff = $moved->signOff;
        }
        self::assertSame(['25 reminded', '26 reminded', '27 passed_on', '28 reminded', '29 reminded', '30 ended'], $happened);
        self::assertSame([SignOffStatus::TimedOut, SeatState::PassedOn], [$signOff->status, $signOff->seats[0]->state]);
    }

    public function test_reminders_go_on_until_it_is_decided_or_so_often_and_rounds_end_in_what_is_said(): void
    {
        $day = static fn (int $days): Due => new Due(new Amount($days, Unit::Day));
        $lives = function (RouteStep $step, int $wakes): array {
            $route = new Route([$step]);
            $this->world->now = new \DateTimeImmutable('2026-11-24T08:40:00Z');
            $signOff = $this->clerk($route)->begin(3)->signOff;
            $happened = [];
            for ($wake = 0; $wake < $wakes && ($at = $this->clerk($route)->wakesAt($signOff)) !== null; $wake++) {
                $this->world->now = $at;
                $moved = $this->clerk($route)->tend($signOff);
                $happened[] = implode(' ', self::kinds($moved));
                $signOff = $moved->signOff;
            }

            return array_count_values($happened);
        };
        self::assertSame(['reminded' => 40], $lives(new RouteStep($this->people(2), remindEvery: $day(1)), 40));
        self::assertSame(['reminded' => 3], $lives(new RouteStep($this->people(2), remindEvery: $day(1), mostReminders: 3), 40));
        foreach (WhenLate::cases() as $late) {
            foreach ([0, 1, 3] as $again) {
                $rounds = $lives(new RouteStep(
                    who: $this->people(2), within: $day(3), remindEvery: $day(1), mostReminders: 1, late: $late, again: $again,
                    instead: $this->who(['kind' => 'named', 'handle' => 'stand']),
                ), 2 * $again + 2);
                self::assertSame($again, $rounds['asked_again'] ?? 0, "{$late->value}, {$again}");
                self::assertSame($again + 1, $rounds['reminded'], 'anew in each round');
                self::assertSame(1, array_sum($rounds) - $again - $rounds['reminded'], 'and then what is said, once');
            }
        }
    }

    public function test_who_has_left_is_passed_by_and_a_route_without_anybody_stops(): void
    {
        $route = new Route([new RouteStep($this->people(4))]);
        self::assertSame([2], $this->waiting($this->clerk($route)->begin(3)->signOff), 'Gus has left; Tomas is above him');
        $asked = $this->clerk(new Route([new RouteStep($this->people(2))]))->begin(3)->signOff;
        $this->world->people[2] = new Person(2, 'tomas', 'Tomas Weld', 1, false);
        $moved = $this->clerk(new Route([new RouteStep($this->people(2))]))->tend($asked);
        self::assertSame([[1], ['passed_on']], [$this->waiting($moved->signOff), self::kinds($moved)]);
        $nobody = $this->clerk(new Route([new RouteStep($this->people())]))->begin(3);
        self::assertSame([[5], ['stood_in', 'asked']], [$this->waiting($nobody->signOff), self::kinds($nobody)]);
        self::assertSame(
            SignOffStatus::Stopped,
            $this->clerk(new Route([new RouteStep($this->people())]))->begin(5)->signOff->status,
            'the fallback cannot decide for himself',
        );
    }

    public function test_levels_up_and_found_people(): void
    {
        $owner = $this->who(['kind' => 'owner']);
        $two = new Route([new RouteStep(new LevelsUp($owner, 2))]);
        self::assertSame([2, 1], $this->waiting($this->clerk($two)->begin(null)->signOff));
        $named = new Route([new RouteStep(new NamedPeople([$owner, $this->who(['kind' => 'named', 'handle' => 'edda'])]))]);
        self::assertSame([3, 1], $this->waiting($this->clerk($named)->begin(null)->signOff));
    }

    public function test_random_lives(): void
    {
        $ends = array_fill_keys(array_column(SignOffStatus::cases(), 'value'), 0);
        for ($seed = 1; $seed <= self::LIVES; $seed++) {
            $random = new Randomizer(new Mt19937($seed));
            $this->company($random);
            [$route, $wanted] = $this->route($random);
            $asker = $random->getInt(1, 9);
            $this->world->now = new \DateTimeImmutable('2026-11-24T08:40:00Z');
            $moved = $this->clerk($route)->begin($asker);
            [$signOff, $events] = [$moved->signOff, $moved->events];
            for ($act = 0; $act < 60 && $signOff->isOpen(); $act++) {
                $moved = $this->act($random, $route, $signOff);
                array_push($events, ...$moved->events);
                $this->grows($signOff, $moved->signOff, "seed {$seed}");
                $signOff = $moved->signOff;
            }
            // Nobody says anything any more: time ends it.
            for ($wake = 0; $wake < 400 && ($at = $this->clerk($route)->wakesAt($signOff)) !== null; $wake++) {
                $this->world->now = max($at, $this->world->now);
                $moved = $this->clerk($route)->tend($signOff);
                array_push($events, ...$moved->events);
                $signOff = $moved->signOff;
            }
            $this->soundlyEnded($signOff, $events, $wanted, $asker, "seed {$seed}");
            $ends[$signOff->status->value]++;
        }
        foreach ($ends as $status => $count) {
            self::assertTrue($status === 'waiting' ? $count === 0 : $count > 20, "{$status}: {$count}");
        }
    }

    /**
     * @param  list<SignOffEvent>  $events
     * @param  list<int>  $wanted  how many have to agree at each step
     */
    private function soundlyEnded(SignOff $signOff, array $events, array $wanted, int $asker, string $story): void
    {
        self::assertCount(1, array_filter($events, static fn (SignOffEvent $event): bool => $event->kind === Kind::Ended), $story);
        self::assertSame([], array_filter($signOff->seats, static fn (Seat $seat): bool => $seat->isWaiting()), $story);
        self::assertNull($this->clerk(new Route([new RouteStep($this->people(1))]))->wakesAt($signOff), $story);
        $yes = [];
        $said = [];
        foreach ($signOff->seats as $seat) {
            self::assertNotSame($asker, $seat->person, "{$story}: whoever asks never decides");
            $key = "{$seat->step}:{$seat->person}";
            // Whoever was absent and came back sits down again, after the seat that went to their deputy.
            if ($seat->state !== SeatState::PassedOn) {
                self::assertArrayNotHasKey($key, $said, "{$story}: one seat at a step for each");
                $said[$key] = true;
            }
            $yes[$seat->step] = ($yes[$seat->step] ?? 0) + ($seat->state === SeatState::Yes ? 1 : 0);
        }
        $agreed = array_values(array_filter($events, static fn (SignOffEvent $event): bool => $event->kind === Kind::StepAgreed));
        foreach ($agreed as $event) {
            $seats = array_filter($signOff->seats, static fn (Seat $seat): bool => $seat->step === $event->step);
            $asked = count(array_filter($seats, static fn (Seat $seat): bool => $seat->state !== SeatState::PassedOn));
            self::assertGreaterThanOrEqual(min($wanted[$event->step], $asked), $yes[$event->step], "{$story}: step {$event->step}");
        }
        self::assertSame($signOff->status === SignOffStatus::Agreed, count($agreed) === count($wanted), $story);
        $no = array_filter($signOff->seats, static fn (Seat $seat): bool => $seat->state === SeatState::No);
        self::assertTrue($signOff->status !== SignOffStatus::Declined || $no !== [], "{$story}: somebody said no");
    }

    /** What has been said stays said, and what has ended stays as it is. */
    private function grows(SignOff $before, SignOff $after, string $story): void
    {
        self::assertGreaterThanOrEqual(count($before->seats), count($after->seats), $story);
        foreach ($before->seats as $place => $seat) {
            self::assertSame($seat->person, $after->seats[$place]->person, $story);
            self::assertTrue($seat->isWaiting() || $seat == $after->seats[$place], "{$story}: seat {$place}");
        }
    }

    private function act(Randomizer $random, Route $route, SignOff $signOff): Moved
    {
        $clerk = $this->clerk($route);
        $roll = $random->getInt(0, 99);
        if ($roll < 45) {
            $person = $random->getInt(1, 9);
            try {
                return $clerk->answer($signOff, $person, $random->getInt(0, 3) > 0 ? Answer::Yes : Answer::No, 'Because');
            } catch (NotDecided $not) {
                self::assertSame('not_asked', $not->reason);
                self::assertNull($signOff->waitsFor($person));

                return new Moved($signOff, []);
            }
        }
        if ($roll < 47) {
            return $clerk->withdraw($signOff);
        }
        if ($roll < 55) {
            $this->somebodyComesOrGoes($random);
        }
        if ($roll >= 55 && $roll < 70) {
            return $this->talk($random, $clerk, $signOff);
        }
        if ($roll >= 75) {
            $this->world->now = $this->world->now->modify('+'.$random->getInt(1, 60).' hours');
        }

        return $clerk->tend($signOff);
    }

    private function somebodyComesOrGoes(Randomizer $random): void
    {
        $one = $this->world->people[$random->getInt(1, 9)];
        $isGone = $random->getInt(0, 1) === 0;
        $this->world->people[$one->id] = new Person(
            $one->id, $one->handle, $one->name, $random->getInt(0, 2) > 0 ? $one->managerId : $random->getInt(1, 9),
            $isGone ? ! $one->active : $one->active, limit: $one->limit, away: $isGone ? $one->away : ! $one->away,
            deputyId: $one->deputyId,
        );
    }

    /** Somebody hands it over, asks back, or is answered; what cannot be is refused and changes nothing. */
    private function talk(Randomizer $random, Clerk $clerk, SignOff $signOff): Moved
    {
        $person = $random->getInt(1, 9);
        try {
            return match ($random->getInt(0, 2)) {
                0 => $clerk->handOver($signOff, $person, $random->getInt(1, 9), 'You know it better'),
                1 => $clerk->askBack($signOff, $person, 'Why so much?'),
                default => $clerk->answerBack($signOff, $random->getInt(0, count($signOff->seats)), $random->getInt(1, 9), 'They stay'),
            };
        } catch (NotDecided $not) {
            self::assertContains($not->reason, ['not_asked', 'cannot_be_given', 'no_question']);

            return new Moved($signOff, []);
        }
    }

    /** Nine people under managers, with gaps and rings, some of whom have left. */
    private function company(Randomizer $random): void
    {
        $this->world->people = [];
        for ($id = 1; $id <= 9; $id++) {
            $manager = $random->getInt(0, 10);
            $this->world->people[$id] = new Person(
                $id, "p{$id}", "Person {$id}", $manager === 0 ? null : $manager, $random->getInt(0, 7) > 0,
                limit: $random->getInt(0, 1) === 0 ? null : (string) ($random->getInt(1, 9) * 200),
                away: $random->getInt(0, 7) === 0, deputyId: $random->getInt(0, 1) === 0 ? null : $random->getInt(1, 9),
            );
        }
        $this->world->fallback = $random->getInt(0, 3) === 0 ? null : $random->getInt(1, 9);
    }

    /** @return array{Route, list<int>} the route, and how many have to agree at each step */
    private function route(Randomizer $random): array
    {
        $steps = [];
        $wanted = [];
        for ($step = $random->getInt(1, 3); $step > 0; $step--) {
            $ids = array_map(static fn (): int => $random->getInt(1, 9), range(1, $random->getInt(1, 4)));
            $late = WhenLate::cases()[$random->getInt(0, count(WhenLate::cases()) - 1)];
            $needed = $random->getInt(0, 1) === 0 ? null : $random->getInt(1, 3);
            $steps[] = new RouteStep(
                match ($random->getInt(0, 3)) {
                    0 => new UpToLimit($this->who(['kind' => 'named', 'handle' => "p{$ids[0]}"]), $this->cost()),
                    1 => new LevelsUp($this->who(['kind' => 'named', 'handle' => "p{$ids[0]}"]), $random->getInt(1, 4)),
                    default => $this->people(...$ids),
                }, $random->getInt(0, 1) === 0, $needed,
                within: new Due(new Amount($random->getInt(1, 5), Unit::Day)),
                remindEvery: $random->getInt(0, 1) === 0 ? null : new Due(new Amount($random->getInt(1, 30), Unit::Hour)),
                mostReminders: $random->getInt(0, 1) === 0 ? null : $random->getInt(1, 3),
                late: $late,
                again: max(0, $random->getInt(-2, 2)),
                instead: $late === WhenLate::PassOn ? $this->who(['kind' => 'named', 'handle' => 'p'.$random->getInt(1, 9)]) : null,
            );
            $wanted[] = $needed ?? 99;
        }

        return [new Route($steps), $wanted];
    }

    private function people(int ...$ids): Approvers
    {
        return new class($this->world, array_values($ids)) implements Approvers
        {
            /** @param  list<int>  $ids */
            public function __construct(private readonly World $world, private readonly array $ids)
            {
            }

            public static function kind(): string
            {
                return 'fixed';
            }

            public static function shape(): Shape
            {
                return Shape::of('fixed')->says('somebody');
            }

            public static function label(): string
            {
                return 'somebody';
            }

            public static function read(Context $context, Node $node): null
            {
                return null;
            }

            public function people(View $view): array
            {
                return array_values(array_filter(array_map(fn (int $id): ?Person => $this->world->person($id), $this->ids)));
            }

            public function most(): int
            {
                return count($this->ids);
            }

            public function followsTree(): bool
            {
                return false;
            }
        };
    }

    /** @param  array<int, string>  $limits  by person */
    private function limits(array $limits): void
    {
        foreach ($limits as $id => $limit) {
            $one = $this->world->people[$id];
            $this->world->people[$id] = new Person($id, $one->handle, $one->name, $one->managerId, limit: (string) BigDecimal::of($limit));
        }
    }

    /** @param  array<string, mixed>  $json */
    private function who(array $json): Who
    {
        return PersonExpressions::read($this->context(), new Node($json, '/who')) ?? self::fail('nobody of that kind');
    }

    private function cost(): Field
    {
        return World::schema()->types['ticket']->field('cost') ?? self::fail('no such field');
    }

    private function context(): Context
    {
        $context = new Context(World::schema(), $this->world, World::schema()->types['ticket'], $this->world->zone());
        $context->row(\VividLedger\Shape\Part::Line, new Node([], '/'));

        return $context;
    }

    private function clerk(Route $route): Clerk
    {
        return new Clerk($route, new View($this->world->records['ticket:7'], $this->world), $this->world->zone());
    }

    /** @return list<int> */
    private function waiting(SignOff $signOff): array
    {
        return array_map(static fn (Seat $seat): int => $seat->person, $signOff->ofStep(SeatState::Waiting));
    }

    /** @return list<string> */
    private static function kinds(Moved $moved): array
    {
        return array_map(static fn (SignOffEvent $event): string => $event->kind->value, $moved->events);
    }

    /** @param  \Closure(): Moved  $act */
    private function refused(string $reason, \Closure $act): void
    {
        try {
            $act();
            self::fail("It should have been refused: {$reason}.");
        } catch (NotDecided $not) {
            self::assertSame($reason, $not->reason);
        }
    }
}
