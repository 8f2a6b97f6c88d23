<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use Tests\Core\Support\Stories;
use Tests\Core\Support\World;
use VividLedger\Condition\ConditionReader;
use VividLedger\Engine\Decision;
use VividLedger\Engine\Effect;
use VividLedger\Engine\Firing;
use VividLedger\Engine\Reason;
use VividLedger\Engine\RuleBook;
use VividLedger\Engine\RuleExplainer;
use VividLedger\Engine\RuleIndex;
use VividLedger\Engine\Stopped;
use VividLedger\Facts\View;
use VividLedger\Record\Change;
use VividLedger\Record\Display;
use VividLedger\Record\Record;
use VividLedger\Rule\Rule;
use VividLedger\Rule\Trigger\Watch;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;

/** What holds for every rule and every change, tried on many random ones. */
final class EnginePropertyTest extends TestCase
{
    private World $world;

    protected function setUp(): void
    {
        $this->world = new World;
        $this->world->records['ticket:8'] = World::made(
            'ticket',
            8,
            ['subject' => 'Another', 'customer' => 1, 'cost' => '5.00', 'parent' => 7],
        );
    }

    public function test_a_decision_is_repeatable_bounded_and_the_same_with_and_without_the_index(): void
    {
        $fired = 0;
        for ($seed = 1; $seed <= 400; $seed++) {
            $stories = $this->stories($seed);
            $rules = $this->rules($stories, 8);
            [$before, $after] = [$this->ticket($stories, 1), $this->ticket($stories, 2)];
            $change = new Change($stories->random->getInt(0, 3) === 0 ? null : $before, $after, 3, $this->world->now);
            $engine = $this->world->engine();
            $decision = $engine->decide($change, new RuleIndex($rules), $this->world, $this->world);

            self::assertEquals(
                $this->told($decision),
                $this->told($engine->decide($change, new RuleIndex($rules), $this->world, $this->world)),
                "seed {$seed}, twice",
            );
            self::assertEquals(
                $this->told($decision),
                $this->told($engine->decide($change, $this->everyRule($rules), $this->world, $this->world)),
                "seed {$seed}, without the index",
            );
            $ids = array_map(static fn (Firing $firing): int => $firing->rule->id, $decision->firings());
            self::assertSame($ids, array_values(array_unique($ids)), "seed {$seed}: a rule fires at most once in a chain");
            $fired += count($ids);
        }
        self::assertGreaterThan(400, $fired, 'The stories have to make rules fire, or they show nothing.');
    }

    public function test_the_examiner_agrees_with_the_engine_about_one_rule(): void
    {
        $examiner = new RuleExplainer(World::schema(), $this->world->zone());
        $answers = [];
        for ($seed = 1; $seed <= 1500; $seed++) {
            $stories = $this->stories($seed);
            $rule = $this->rules($stories, 1)[0];
            $this->world->guards = $stories->random->getInt(0, 2) === 0 ? [
                '1:ticket:7' => [0, 1, $this->world->now, ['0:once' => true]],
            ] : [];
            $after = $this->ticket($stories, 2);
            $change = new Change($stories->random->getInt(0, 3) === 0 ? null : $this->ticket($stories, 1), $after, 3, $this->world->now);
            $fires = $this->world->engine()->decide($change, new RuleIndex([$rule]), $this->world, $this->world)->firings() !== [];
            $verdict = $examiner->examine($rule, World::schema()->types['ticket'], $change, new View($after, $this->world));

            self::assertSame($fires, $verdict->reason === Reason::Fires, "seed {$seed}: {$verdict->sentence}");
            $answers[$verdict->reason->value] = true;
        }
        // Being forestalled takes a second rule.
        self::assertCount(count(Reason::cases()) - 1, $answers, 'Every reason has to come up: '.implode(', ', array_keys($answers)));
    }

    public function test_an_explanation_says_what_the_closure_says(): void
    {
        for ($seed = 1; $seed <= 2000; $seed++) {
            $stories = $this->stories($seed);
            $context = new Context(World::schema(), $this->world, World::schema()->types['ticket'], $this->world->zone());
            $file = $stories->condition(World::schema()->types['ticket']);
            $condition = ConditionReader::read($context, new Node($file));
            self::assertNotNull($condition, "seed {$seed}: ".json_encode([$file, $context->sheet->problems]));
            $view = new View($this->ticket($stories, 1), $this->world);

            self::assertSame(
                $condition->compile()($view),
                $condition->explain($view, new Display($this->world, $this->world->zone()))->held,
                "seed {$seed}",
            );
        }
    }

    /** A save that changes nothing sets nothing off, whatever the rules. */
    public function test_nothing_follows_from_nothing(): void
    {
        for ($seed = 1; $seed <= 100; $seed++) {
            $stories = $this->stories($seed);
            $ticket = $this->ticket($stories, 1);
            self::assertSame([], $this->world->decide($this->rules($stories, 6), $ticket, $ticket)->steps);
        }
    }

    private function stories(int $seed): Stories
    {
        return new Stories($seed, World::schema(), ['edda', 'tomas', 'ines'], ['customer' => [1, 2], 'ticket' => [8]]);
    }

    /** @return list<Rule> */
    private function rules(Stories $stories, int $count): array
    {
        $rules = [];
        for ($id = 1; $id <= $count; $id++) {
            $rules[] = $this->world->rule($stories->rule("r{$id}"), $id);
        }

        return $rules;
    }

    private function ticket(Stories $stories, int $version): Record
    {
        $values = [];
        foreach (World::schema()->types['ticket']->ownFields() as $field) {
            $values[$field->name] = $stories->value($field);
        }

        return World::made('ticket', 7, $values, $version);
    }

    /** @param  list<Rule>  $rules */
    private function everyRule(array $rules): RuleBook
    {
        return new class($rules, $this->world) implements RuleBook
        {
            /** @param  list<Rule>  $rules */
            public function __construct(private readonly array $rules, private readonly World $world)
            {
            }

            public function relevantTo(Change $change): array
            {
                return array_filter(
                    $this->rules,
                    fn (Rule $rule): bool => $rule->looksAt($change, $this->world) || array_intersect(
                        $rule->watchAgain()?->keys() ?? [],
                        Watch::keysOf($change),
                    ) !== [],
                );
            }

            public function readOver(Change $change): array
            {
                return [];
            }

            public function mayTouchRuns(Change $change): bool
            {
                return true;
            }

            public function page(int $rule, int $number): ?Rule
            {
                return (new RuleIndex($this->rules))->page($rule, $number);
            }
        };
    }

    /** @return array<mixed> everything a decision says, in a form that can be compared */
    private function told(Decision $decision): array
    {
        $told = ['after' => $decision->after?->values];
        foreach ($decision->steps as $step) {
            $told[] = match (true) {
                $step instanceof Firing => [
                    $step->rule->name, $step->parent, $step->guardKey, json_encode($step->why), $step->performance->outcomes,
                ],
                $step instanceof Stopped => [
                    array_map(static fn (Rule $rule): string => $rule->name, $step->chain), $step->parent, $step->cameRound,
                ],
                $step instanceof Effect => [$step->change->occasion(), $step->change->record()->values],
                default => [$step::class, $step->parent()],
            };
        }

        return $told;
    }
}
