<?php

declare(strict_types=1);

namespace Tests\Core;

use Opis\JsonSchema\Validator;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\World;
use VividLedger\Facts\View;
use VividLedger\Shape\Context;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Part;
use VividLedger\Shape\Problem;
use VividLedger\Shape\Typed;
use VividLedger\SignOff\Clerk;
use VividLedger\SignOff\KeptRoute;
use VividLedger\SignOff\Route;
use VividLedger\SignOff\RouteStep;
use VividLedger\SignOff\Seat;
use VividLedger\SignOff\StepsSlot;

/** Routes as a file has them: read, worded, printed and typed. */
final class RouteReadingTest extends TestCase
{
    private const OWNER = ['kind' => 'owner'];

    private const BOSS = ['kind' => 'manager', 'of' => self::OWNER];

    private const TREE = ['kind' => 'up_to_limit', 'from' => self::OWNER, 'field' => 'cost'];

    /** A route that is kept in Setup. */
    private const DEAR = [
        ['who' => ['kind' => 'people', 'people' => [self::BOSS]], 'within' => ['amount' => 1, 'unit' => 'day']],
        ['who' => ['kind' => 'team', 'team' => 'Sales'], 'needed' => 1],
    ];

    private World $world;

    protected function setUp(): void
    {
        $this->world = new World;
        $this->world->records['ticket:7'] = World::ticket(['cost' => '700']);
        $this->world->routes = ['Dear repairs' => self::DEAR];
    }

    /** @return iterable<string, array{list<array<string, mixed>>, string, list<string>}> steps, as printed, and as people say it */
    public static function routes(): iterable
    {
        $people = static fn (array ...$who): array => ['kind' => 'people', 'people' => $who];
        yield 'one person' => [[['who' => $people(self::BOSS)]], 'the owner’s manager', ['the manager of the owner', 'the owner’s boss']];
        yield 'two, side by side, one of whom is enough' => [
            [['who' => $people(self::BOSS, ['kind' => 'named', 'handle' => 'edda']), 'needed' => 1]],
            'the owner’s manager and Edda Marlow, 1 of them being enough',
            ['the owner’s boss and Edda, one of them being enough'],
        ];
        yield 'anyone in a team' => [
            [['who' => ['kind' => 'team', 'team' => 'Sales'], 'needed' => 1]],
            'everybody in Sales, 1 of them being enough',
            ['anyone in sales', 'any one of Sales', 'one of the sales team'],
        ];
        yield 'everybody with a role' => [
            [['who' => ['kind' => 'role', 'role' => 'manager'], 'needed' => 1]],
            'everybody with the role Manager, 1 of them being enough',
            ['everyone with the role manager, one of them being enough', 'every manager, one of them being enough'],
        ];
        yield 'up the tree, one after another' => [
            [['who' => self::TREE, 'inTurn' => true]],
            'managers up from the owner until the limit suffices for Cost, one after another',
            ['up from the owner until the limit suffices for cost, one after another'],
        ];
        yield 'with time, reminders and who comes next' => [
            [[
                'who' => ['kind' => 'levels_up', 'levels' => 2, 'from' => self::OWNER],
                'within' => ['amount' => 3, 'unit' => 'working_day'], 'remind' => ['amount' => 1, 'unit' => 'day'], 'late' => 'up',
            ]],
            'managers 2 levels up from the owner, within 3 working days, reminded every 1 day, and then ask the next person up',
            ['two levels above the owner, within 3wd, reminded every day, and then ask the next person up'],
        ];
        yield 'reminded and asked again so often' => [
            [[
                'who' => ['kind' => 'levels_up', 'levels' => 2, 'from' => self::OWNER],
                'within' => ['amount' => 3, 'unit' => 'working_day'], 'remind' => ['amount' => 1, 'unit' => 'day'], 'reminders' => 2,
                'again' => 4, 'late' => 'decline',
            ]],
            'managers 2 levels up from the owner, within 3 working days, reminded every 1 day, twice at most, asked again 4 times, '
                .'and then count it as a no',
            ['two levels above the owner, within 3wd, reminded every day, two times at most, asked again four times, and then '
                .'count it as a no'],
        ];
        yield 'asked again as it was written once' => [
            [[
                'who' => ['kind' => 'team', 'team' => 'Sales'], 'within' => ['amount' => 1, 'unit' => 'day'], 'late' => 'again',
            ]],
            'everybody in Sales, within 1 day, and then ask them again once and count it as a no after that',
            ['everyone in Sales, within a day, and then ask them again'],
        ];
        yield 'two steps, the second only if it is dear' => [
            [
                ['who' => ['kind' => 'team', 'team' => 'Sales'], 'within' => ['amount' => 1, 'unit' => 'week'], 'late' => 'pass_on',
                    'instead' => ['kind' => 'named', 'handle' => 'edda']],
                ['who' => $people(['kind' => 'named', 'handle' => 'edda']),
                    'onlyIf' => ['kind' => 'over', 'field' => 'cost', 'value' => '500']],
            ],
            'everybody in Sales, within 1 week, and then pass it on to Edda Marlow; then Edda Marlow, asked only if Cost is over 500',
            ['everyone in Sales, within a week, and then pass it on to Edda; then Edda, asked only if cost > 500'],
        ];
        yield 'what may be corrected, a task, a deputy, and a condition that has to hold' => [
            [[
                'who' => self::TREE, 'inTurn' => true, 'correct' => ['cost', 'priority'], 'task' => true,
                'within' => ['amount' => 2, 'unit' => 'day'], 'late' => 'deputy',
                'until' => ['kind' => 'is', 'field' => 'priority', 'value' => 'low'],
            ]],
            'managers up from the owner until the limit suffices for Cost, one after another, who may correct Cost and Priority, '
                .'with a task, within 2 days, and then ask their deputy, until Priority is Low',
            ['up from the owner until the limit suffices for Cost, one after another, who may correct Cost and Priority, with a task, '
                .'within 2d, and then ask their deputy, until priority is low'],
        ];
        yield 'a route that is kept' => [
            [['who' => $people(['kind' => 'named', 'handle' => 'edda'])], ['route' => 'Dear repairs']],
            'Edda Marlow; then the route “Dear repairs”',
            ['Edda, then the route "Dear repairs"', 'Edda; then the Dear repairs route'],
        ];
    }

    /**
     * @param  list<array<string, mixed>>  $steps
     * @param  list<string>  $said
     */
    #[DataProvider('routes')]
    public function test_it_is_read_worded_printed_and_typed(array $steps, string $printed, array $said): void
    {
        [$route, $context] = $this->read($steps);
        self::assertInstanceOf(Route::class, $route, (string) json_encode($context->sheet->problems));
        self::assertCount($route->file === null ? count($steps) : 3, $route->steps);
        self::assertSame($printed, (new StepsSlot)->print($steps, $context->scope(), []));
        foreach ([$printed, ...$said] as $text) {
            self::assertEquals([$steps], self::whole($text, $context), $text);
        }
        self::assertTrue((new Validator)->validate(
            json_decode((string) json_encode($steps)),
            (string) json_encode(['$defs' => array_fill_keys(['condition', 'person', 'approvers'], true) + [
                'route_step' => ['anyOf' => [RouteStep::shape()->schema(), KeptRoute::shape()->schema()]],
            ]] + (new StepsSlot)->schema()),
        )->isValid(), $printed);
    }

    public function test_the_steps_of_a_kept_route_stand_in_its_place(): void
    {
        [$route] = $this->read([['route' => 'Dear repairs'], ['who' => self::TREE]]);
        self::assertInstanceOf(Route::class, $route);
        self::assertCount(3, $route->steps);
        self::assertSame([...self::DEAR, ['who' => self::TREE]], $route->file, 'what a sign-off goes on with when the route is changed');
        [$none, $context] = $this->read([['route' => 'Cheap repairs']]);
        self::assertNull($none);
        self::assertSame([['/steps/0/route', 'unknown_route']], array_map(
            static fn (Problem $problem): array => [$problem->at, $problem->code],
            $context->sheet->problems,
        ));
    }

    /** @return iterable<string, array{array<mixed>, string, string}> what is wrong, where, and its code */
    public static function wrong(): iterable
    {
        yield 'no step' => [[], '/steps/0/who', 'missing'];
        yield 'nobody' => [[['who' => ['kind' => 'people', 'people' => []]]], '/steps/0/who/people/0', 'missing'];
        yield 'no levels' => [[['who' => ['kind' => 'levels_up', 'levels' => 0, 'from' => self::OWNER]]], '/steps/0/who/levels', 'missing'];
        yield 'no amount of money' => [[['who' => ['field' => 'hours'] + self::TREE]], '/steps/0/who/field', 'unknown_field'];
        yield 'no such role' => [[['who' => ['kind' => 'role', 'role' => 'jester']]], '/steps/0/who/role', 'unknown_role'];
        yield 'no such team' => [[['who' => ['kind' => 'team', 'team' => 'Chess']]], '/steps/0/who/team', 'unknown_team'];
        yield 'late without a time' => [[['who' => self::TREE, 'late' => 'up']], '/steps/0/within', 'missing'];
        $within = ['amount' => 1, 'unit' => 'day'];
        yield 'passed on to nobody' => [[['who' => self::TREE, 'within' => $within, 'late' => 'pass_on']], '/steps/0/instead', 'missing'];
        yield 'an unheard-of end' => [[['who' => self::TREE, 'within' => $within, 'late' => 'sleep']], '/steps/0/late', 'wrong_type'];
        yield 'a step of many' => [array_fill(0, 11, RouteStep::BEGUN), '/steps', 'too_many'];
    }

    /** @param  array<mixed>  $steps */
    #[DataProvider('wrong')]
    public function test_what_is_wrong_is_said_at_its_place(array $steps, string $at, string $code): void
    {
        [$route, $context] = $this->read($steps);
        self::assertNull($route);
        self::assertContains("{$at} {$code}", array_map(
            static fn (Problem $problem): string => "{$problem->at} {$problem->code}",
            $context->sheet->problems,
        ));
    }

    public function test_what_was_read_is_led_by_the_clerk(): void
    {
        [$route] = $this->read([['who' => self::TREE, 'inTurn' => true, 'within' => ['amount' => 1, 'unit' => 'day']]]);
        self::assertNotNull($route);
        $clerk = new Clerk($route, new View($this->world->records['ticket:7'], $this->world), $this->world->zone());
        $signOff = $clerk->begin(null)->signOff;
        self::assertSame([2], array_map(static fn (Seat $seat): int => $seat->person, $signOff->ofStep()));
        self::assertSame('2026-11-25T08:40:00+00:00', $clerk->wakesAt($signOff)?->format('c'));
    }

    /**
     * @param  array<mixed>  $steps
     * @return array{?Route, Context}
     */
    private function read(array $steps): array
    {
        $context = new Context(World::schema(), $this->world, World::schema()->types['ticket'], $this->world->zone());
        $context->row(Part::Line, new Node([], ''));

        return [(new StepsSlot)->read($context, new Node($steps, '/steps'), new Filled), $context];
    }

    /** @return list<mixed> the nearest readings of a whole text */
    private static function whole(string $text, Context $context): array
    {
        $typed = new Typed($text);
        $whole = array_filter(
            (new StepsSlot)->parse($typed, 0, $context->scope(), []),
            static fn (Parsed $one): bool => $typed->isDone($one->end),
        );
        $least = min([99, ...array_map(static fn (Parsed $one): int => $one->cost, $whole)]);

        return array_values(array_unique(array_map(
            static fn (Parsed $one): mixed => $one->json,
            array_filter($whole, static fn (Parsed $one): bool => $one->cost === $least),
        ), SORT_REGULAR));
    }
}
