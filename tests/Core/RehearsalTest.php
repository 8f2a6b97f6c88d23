<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use Tests\Core\Support\Stories;
use Tests\Core\Support\World;
use VividLedger\Engine\Reason;
use VividLedger\Proofread\Proofreader;
use VividLedger\Proofread\Remark;
use VividLedger\Proofread\RuleAmongOthers;
use VividLedger\Record\EventKind;
use VividLedger\Rehearse\Boundaries;
use VividLedger\Rehearse\InvalidScript;
use VividLedger\Rehearse\PaperEntry;
use VividLedger\Rehearse\Played;
use VividLedger\Rehearse\Rehearsal;
use VividLedger\Rehearse\ScriptReader;
use VividLedger\Rehearse\Tally;
use VividLedger\Rehearse\WhatIf\CallFails;
use VividLedger\Rehearse\WhatIf\DayOff;
use VividLedger\Rehearse\WhatIf\FieldsChange;
use VividLedger\Rehearse\WhatIf\SignOffAnswered;
use VividLedger\Rehearse\WhatIf\SlipReturned;
use VividLedger\Rehearse\WhatIf\SomebodyAway;
use VividLedger\Rehearse\WhatIf\TaskIsDone;
use VividLedger\Rehearse\WhatIf\WhatIf;
use VividLedger\Rehearse\WhatIf\WordArrives;
use VividLedger\Rule\Rule;
use VividLedger\Rule\Trigger\Ahead;
use VividLedger\Rule\Trigger\Opening;
use VividLedger\Rule\Trigger\OpeningKind;
use VividLedger\Shape\Node;
use VividLedger\SignOff\Answer;

/** Rehearsals in the core: what is proposed starts the rule, what is supposed changes its life, and nothing is touched. */
final class RehearsalTest extends TestCase
{
    /** What a boundary cannot be found for by the file alone. */
    private const BEYOND = '/"(changed_from|changed_to|has_changed|was|made_by|not_made_by|formula|total|in_next|in_last|moment|refuse|'
        .'related|customer\\.|parent\\.|person|updated_|created_at|created_by|rate)/';

    public function test_what_is_proposed_starts_the_rule(): void
    {
        $world = $this->world();
        $fires = 0;
        $tried = 0;
        for ($seed = 1; $seed <= 250; $seed++) {
            $stories = new Stories($seed, World::schema(), ['tomas', 'ines'], ['customer' => [1, 2], 'ticket' => [7]]);
            $file = $stories->rule("Rule {$seed}");
            // What is known of a change alone, or of other records, no value of this one brings about.
            if (preg_match(self::BEYOND, (string) json_encode($file)) === 1) {
                continue;
            }
            $rule = $world->rule($file, 1);
            // What never fires, no change can start; the remarks say so.
            if (in_array(
                'never',
                array_map(
                    static fn (Remark $remark): string => $remark->code,
                    Proofreader::read(new RuleAmongOthers($rule, new Node($file), World::schema(), [])),
                ),
                true,
            )) {
                continue;
            }
            $tried++;
            $played = $world->rehearse($rule);
            $fires += $played->why?->reason === Reason::Fires ? 1 : 0;
        }
        self::assertGreaterThan(40, $tried);
        self::assertGreaterThanOrEqual((int) ($tried * 0.97), $fires, "the proposal starts nearly every rule: {$fires} of {$tried}");
    }

    public function test_a_rehearsal_touches_nothing_and_comes_out_the_same_again(): void
    {
        for ($seed = 1; $seed <= 60; $seed++) {
            $world = $this->world();
            $stories = new Stories($seed, World::schema(), ['tomas', 'ines'], ['customer' => [1, 2], 'ticket' => [7]]);
            $rule = $world->rule($stories->inTime($stories->rule("Rule {$seed}")), 1);
            $before = serialize([$world->records, $world->guards, $world->turns, $world->open, $world->follows, $world->now]);
            $first = $world->outline($world->rehearse($rule));
            self::assertSame(
                $before,
                serialize([$world->records, $world->guards, $world->turns, $world->open, $world->follows, $world->now]),
                "seed {$seed}",
            );
            self::assertSame($first, $world->outline($world->rehearse($rule)), "seed {$seed}");
        }
    }

    public function test_what_is_supposed_after_the_end_changes_nothing_before_it(): void
    {
        $world = $this->world();
        $rule = $this->chase($world);
        $plain = $world->rehearse($rule);
        $late = new WordArrives($plain->until->modify('+3 days'), EventKind::Reply, 'Late');
        $with = $world->rehearse($rule, [$late]);
        self::assertSame($world->outline($plain), array_slice($world->outline($with), 0, count($world->outline($plain))));
        self::assertSame('reply', $with->entries[count($with->entries) - 1]->told->kind);
    }

    public function test_each_supposition_has_its_effect(): void
    {
        $world = $this->world();
        $rule = $this->chase($world);
        $kinds = fn (WhatIf ...$whatIfs): array => array_map(
            static fn (PaperEntry $entry): string => $entry->told->kind,
            $world->rehearse($rule, array_values($whatIfs))->entries,
        );
        $at = static fn (int $days): \DateTimeImmutable => (new \DateTimeImmutable('2026-11-24T08:40:00Z'))->modify("+{$days} days");
        self::assertSame(['changed', 'fired', 'line', 'line', 'line', 'changed'], array_pad($kinds(), 6, 'changed'));
        self::assertContains('struck', $kinds(new WordArrives($at(4), EventKind::Reply, 'Hello')));
        self::assertNotContains('struck', $kinds(new WordArrives($at(4), EventKind::Comment, 'Hello')));
        self::assertContains('struck', $kinds(new FieldsChange($at(4), ['status' => 'closed'])));
        self::assertSame(
            array_count_values($kinds())['line'],
            array_count_values($kinds(new FieldsChange($at(4), ['code' => 'A1'])))['line'],
            'a change of something else ends nothing',
        );
        self::assertContains('task_done', $kinds(new TaskIsDone($at(6), 1)));
        self::assertNotContains('task_done', $kinds(new TaskIsDone($at(6), 9)), 'a task there is not cannot be done');
        $moment = fn (WhatIf ...$whatIfs): string => $this->line($world->rehearse(
            $this->chase($world, 'working_day'),
            array_values($whatIfs),
        ))->at->format('Y-m-d');
        self::assertNotSame($moment(), $moment(new DayOff('2026-11-25')));
    }

    public function test_somebody_who_is_away_gets_nothing(): void
    {
        $world = $this->world();
        $rule = $this->chase($world);
        $who = fn (WhatIf ...$whatIfs): ?string => array_merge(
            ...array_map(static fn (PaperEntry $entry): array => $entry->tasks, $world->rehearse($rule, array_values($whatIfs))->entries),
        )[0]->given->person?->name;
        self::assertSame('Ines Okafor', $who());
        self::assertNotSame(
            'Ines Okafor',
            $who(new SomebodyAway(3, 'Ines Okafor', new \DateTimeImmutable('2026-11-25'), new \DateTimeImmutable('2027-01-01'))),
        );
        self::assertSame(
            'Ines Okafor',
            $who(new SomebodyAway(3, 'Ines Okafor', new \DateTimeImmutable('2026-12-25'), new \DateTimeImmutable('2027-01-01'))),
            'only while they are away',
        );
    }

    public function test_it_is_counted_and_outlined(): void
    {
        $world = $this->world();
        $played = $world->rehearse($this->chase($world));
        $tally = Tally::of($played, []);
        self::assertSame([1, 1, '1 note, 1 task and 1 field change'], [$tally->notes, $tally->tasks, $tally->said()]);
        self::assertSame('nothing', Tally::of(new Played([], [], null, null, null, $world->now, $world->now, false), [])->said());
        self::assertSame([
            '24 Nov 2026 09:40 · It begins: Status Open → Waiting',
            '24 Nov 2026 09:40 · Chase: nothing to do',
            '27 Nov 2026 09:40 · Chase: message “T-0007 waits” to Ines Okafor',
            '29 Nov 2026 09:40 · Chase: task “Ring” to Ines Okafor',
            '2 Dec 2026 09:40 · Chase: Status set to Closed',
        ], $world->outline($played));
    }

    public function test_the_cases_at_the_boundaries_fire_on_one_side_only(): void
    {
        $world = $this->world();
        foreach ([['over', '12', ['11.9' => false, '12.0' => false, '12.1' => true]],
            ['at_least', '12', ['11.9' => false, '12.0' => true, '12.1' => true]],
            ['under', '12', ['11.9' => true, '12.0' => false, '12.1' => false]],
            ['is', '12', ['11.9' => false, '12.0' => true, '12.1' => false]]] as [$kind, $value, $expected]) {
            $rule = $world->rule([
                'onlyIf' => ['kind' => 'all', 'of' => [['kind' => $kind, 'field' => 'share', 'value' => $value]]],
                'fires' => ['kind' => 'becomes_true'],
            ]);
            $seen = [];
            foreach ((new Boundaries(World::schema(), $world->zone()))->of($rule, World::ticket(), $world, $world->now) as [$name,
                $script]) {
                $share = $script->opening->set['share'] ?? $script->record->value('share');
                $seen[(string) $share] = (new Rehearsal(World::schema(), $world->zone()))->play(
                    $script,
                    $rule,
                    [$rule],
                    $world,
                )->why?->reason === Reason::Fires;
            }
            self::assertSame(
                $expected,
                array_intersect_key(array_replace(array_flip(array_keys($expected)), $seen), $expected),
                "{$kind} {$value}",
            );
            self::assertFalse($seen['']);
        }
    }

    public function test_a_date_sets_a_rule_off_on_its_day_only(): void
    {
        $world = $this->world();
        $random = new \Random\Randomizer(new \Random\Engine\Mt19937(5));
        $one = static fn (array $from): mixed => $from[$random->getInt(0, count($from) - 1)];
        $cases = ['comes' => 0, 'does not' => 0];
        for ($count = 0; $count < 80; $count++) {
            $trigger = [
                'kind' => 'date', 'field' => $one(['due', 'since']), 'amount' => $random->getInt(-20, 20),
                'unit' => $one(['day', 'week', 'month', 'working_day']),
            ] + $one([[], ['time' => '09:00'], ['roll' => 'next'], ['time' => '08:00', 'roll' => 'previous']]) + $one([[], [],
                ['yearly' => true]]);
            $trigger['unit'] = $trigger['amount'] === 0 ? 'day' : $trigger['unit'];
            $rule = $world->rule([
                'when' => $trigger, 'onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'status', 'value' => 'waiting']]],
            ]);
            $world->records['ticket:7'] = World::ticket($one([
                [], ['due' => '2026-12-03', 'since' => '2026-12-20T10:30:00Z'], ['due' => '2026-02-28', 'since' => '2026-10-31T23:30:00Z'],
            ]));
            $where = json_encode([$trigger, $world->records['ticket:7']->values]);
            self::assertSame(Reason::Fires, $world->rehearse($rule)->why?->reason, 'what is proposed starts it: '.$where);
            $moment = null;
            foreach ((new Boundaries(World::schema(), $world->zone()))->of($rule, $world->records['ticket:7'], $world,
                $world->now) as [$name, $script]) {
                $field = $trigger['field'];
                $date = array_key_exists($field, $script->opening->set) ? $script->opening->set[$field] : $script->record->value($field);
                $played = (new Rehearsal(World::schema(), $world->zone()))->play($script, $rule, [$rule], $world);
                $isDue = $date !== null && array_filter(
                    $rule->trigger->moments(new Ahead(
                        World::schema()->types['ticket'],
                        $script->record->with([$field => $date]),
                        $world,
                        $world->zone(),
                        $script->opening->at,
                        $script->opening->at,
                    )),
                    static fn (array $one): bool => $one[0] == $script->opening->at,
                ) !== [];
                $waits = ($script->opening->set['status'] ?? $script->record->value('status')) === 'waiting';
                self::assertSame(
                    $isDue && $waits,
                    $played->why?->reason === Reason::Fires,
                    "{$name}: {$where} ".json_encode([$isDue, $waits, $date, $script->opening, $played->why]),
                );
                self::assertSame($isDue && $waits, $played->entries !== [], $name);
                $cases[$isDue ? 'comes' : 'does not']++;
                if (! $isDue) {
                    self::assertMatchesRegularExpression(
                        '/comes to .*(is empty, so that never comes|that is on )/',
                        (string) $played->why?->sentence,
                    );
                }
            }
        }
        self::assertGreaterThan(100, min($cases), json_encode($cases));
    }

    public function test_a_script_is_read_or_refused_at_its_place(): void
    {
        $world = $this->world();
        $reader = new ScriptReader(World::schema(), $world);
        $type = World::schema()->types['ticket'];
        $opening = new Opening(OpeningKind::Changed, $world->now, ['status' => 'open'], ['status' => 'waiting', 'paid' => true], 'text');
        self::assertEquals($opening, $reader->opening(json_decode((string) json_encode(ScriptReader::written($opening)), true), $type));
        $refused = static function (callable $read): string {
            try {
                $read();
            } catch (InvalidScript $invalid) {
                return $invalid->at;
            }

            return 'not refused';
        };
        $at = '2026-11-24T09:00:00Z';
        self::assertSame('/opening/kind', $refused(static fn () => $reader->opening(['kind' => 'flown', 'at' => $at], $type)));
        self::assertSame('/opening/at', $refused(static fn () => $reader->opening(['kind' => 'changed', 'at' => 'now'], $type)));
        self::assertSame(
            '/opening/set/nothing',
            $refused(static fn () => $reader->opening(['kind' => 'changed', 'at' => $at, 'set' => ['nothing' => 1]], $type)),
        );
        self::assertSame(
            '/opening/set/cost',
            $refused(static fn () => $reader->opening(['kind' => 'changed', 'at' => $at, 'set' => ['cost' => 'much']], $type)),
        );
        self::assertSame(
            '/opening/related/type',
            $refused(static fn () => $reader->opening(['kind' => 'related', 'at' => $at, 'related' => ['type' => 'boat']], $type)),
        );
        foreach ([[['kind' => 'rain'], 'kind'], [['kind' => 'change', 'at' => $at, 'set' => []], 'set'],
            [['kind' => 'away', 'at' => $at, 'until' => $at, 'person' => 99], 'person'],
            [['kind' => 'holiday', 'day' => '2026-02-30'], 'day'], [['kind' => 'word', 'at' => ''], 'at']] as [$raw, $place]) {
            self::assertSame("/whatIfs/0/{$place}", $refused(static fn () => $reader->whatIfs([$raw], $type)));
        }
    }

    public function test_what_is_supposed_is_read_as_it_was_said(): void
    {
        $world = $this->world();
        $moment = new \DateTimeImmutable('2026-11-24T09:00:00Z');
        $read = static fn (array $raw): WhatIf => (new ScriptReader(World::schema(), $world))
            ->whatIfs([$raw + ['at' => '2026-11-24T09:00:00Z']], World::schema()->types['ticket'])[0];
        // How many of it there were before is counted from 1, which is also what is meant where nobody says it.
        foreach ([[3, 3], [1, 1], [0, 1], [-2, 1], ['2', 1], [null, 1]] as [$said, $meant]) {
            self::assertEquals(new CallFails($meant), $read(['kind' => 'call', 'call' => $said]));
            self::assertEquals(new TaskIsDone($moment, $meant), $read(['kind' => 'task_done', 'task' => $said]));
            self::assertEquals(new SlipReturned($moment, $meant, ['a' => true]), $read(
                ['kind' => 'slip', 'slip' => $said, 'answers' => ['a' => true]],
            ));
            self::assertEquals(new SignOffAnswered($moment, $meant, Answer::No, 'Too much'), $read(
                ['kind' => 'sign_off', 'sign_off' => $said, 'answer' => 'no', 'comment' => 'Too much'],
            ));
        }
        self::assertEquals(new SlipReturned($moment, 1, []), $read(['kind' => 'slip', 'answers' => 'yes']));
        self::assertEquals(new SignOffAnswered($moment, 1, Answer::Yes, ''), $read(['kind' => 'sign_off', 'answer' => 'maybe']));
        self::assertEquals(
            new WordArrives($moment, EventKind::Comment, 'Hello', 'jo@example.org'),
            $read(['kind' => 'word', 'event' => 'comment', 'text' => 'Hello', 'from' => 'jo@example.org']),
        );
        self::assertEquals(new WordArrives($moment, EventKind::Reply, ''), $read(['kind' => 'word', 'event' => 'reply']));
        self::assertEquals(new DayOff('2028-02-29'), $read(['kind' => 'holiday', 'day' => '2028-02-29']));
        self::assertEquals(new FieldsChange($moment, ['paid' => true]), $read(['kind' => 'change', 'set' => ['paid' => true]]));
        self::assertEquals(
            new SomebodyAway(3, 'Ines Okafor', $moment, $moment),
            $read(['kind' => 'away', 'person' => 3, 'until' => '2026-11-24T09:00:00Z']),
        );
    }

    private function world(): World
    {
        $world = new World;
        $world->records['ticket:7'] = World::ticket();

        return $world;
    }

    private function chase(World $world, string $unit = 'day'): Rule
    {
        $at = static fn (int $amount): array => ['at' => ['kind' => 'after', 'amount' => $amount, 'unit' => $unit]];

        return $world->rule([
            'name' => 'Chase', 'onlyIf' => [
                'kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'status', 'value' => 'waiting']],
            ], 'fires' => ['kind' => 'becomes_true'],
            'lines' => [
                ['kind' => 'remind', 'to' => ['kind' => 'owner'], 'text' => '{number} waits'] + $at(3), [
                    'kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Ring', 'due' => null,
                ] + $at(5),
                World::set('status', 'closed') + $at(8),
            ],
            'until' => [
                'kind' => 'any',
                'of' => [['kind' => 'happened', 'event' => 'reply'], ['kind' => 'is', 'field' => 'status', 'value' => 'closed']],
            ],
        ]);
    }

    private function line(Played $played): PaperEntry
    {
        return array_values(array_filter($played->entries, static fn (PaperEntry $entry): bool => $entry->told->kind === 'line'))[0];
    }
}
