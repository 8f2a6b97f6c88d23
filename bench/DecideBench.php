<?php

declare(strict_types=1);

namespace Bench;

use Tests\Core\Support\World;
use VividLedger\Engine\RuleIndex;
use VividLedger\Record\Change;
use VividLedger\Record\Record;
use VividLedger\Rule\Rule;

/**
 * One change against 200 rules, five of which watch the field that changed. None of the five fires in the end, so that
 * what is measured is deciding and not the work of lines.
 */
final class DecideBench
{
    private const TIMES = 20_000;

    public static function run(): void
    {
        $world = new World;
        $engine = $world->engine();
        $watching = [
            ['priority', 'urgent', 'status', 'closed'], ['priority', 'high', 'paid', null], [
                'priority', 'urgent', 'customer.plan', 'basic',
            ],
            ['priority', 'low', 'code', 'x'], ['priority', 'urgent', 'status', 'waiting'],
        ];
        $rules = [];
        foreach ($watching as $id => [$field, $value, $second, $other]) {
            $rules[] = self::rule(
                $world,
                $id + 1,
                ['kind' => 'is', 'field' => $field, 'value' => $value],
                $other === null ? ['kind' => 'ticked', 'field' => $second] : ['kind' => 'is', 'field' => $second, 'value' => $other],
            );
        }
        $others = ['subject', 'status', 'code', 'email', 'due'];
        $idle = static function (int $from, int $to) use ($world, $others): array {
            $rules = [];
            for ($id = $from; $id < $to; $id++) {
                $rules[] = self::rule(
                    $world,
                    $id,
                    ['kind' => 'is_filled', 'field' => $others[$id % 5]],
                    ['kind' => 'is_filled', 'field' => 'code'],
                );
            }

            return $rules;
        };
        $book = new RuleIndex([...$rules, ...$idle(6, 201)]);
        $large = new RuleIndex([...$rules, ...$idle(6, 2201)]);
        [$before, $after] = [World::ticket(['priority' => 'low']), World::ticket(['priority' => 'urgent'], 2)];
        $decide = static fn (RuleIndex $book) => static fn () => $engine->decide(
            new Change($before, $after, 3, $world->now),
            $book,
            $world,
            $world,
        );

        Timing::pair(
            'decide: a change, 200 rules, 5 watch the field',
            'the same five checks written by hand',
            self::TIMES,
            $decide($book),
            static fn () => self::byHand($before, $after, $world),
            5,
        );
        Timing::pair('decide: the same with 2,000 further rules', 'with 200 rules', self::TIMES, $decide($large), $decide($book), 1.1);
    }

    /**
     * @param  array<string, mixed>  $first
     * @param  array<string, mixed>  $second
     */
    private static function rule(World $world, int $id, array $first, array $second): Rule
    {
        return $world->rule(
            ['name' => "r{$id}", 'fires' => ['kind' => 'becomes_true'], 'onlyIf' => ['kind' => 'all', 'of' => [$first, $second]]],
            $id,
        );
    }

    /**
     * What a programmer would write for these five rules: which fields changed, and for each rule that watches one of
     * them whether its conditions hold now and did not before.
     *
     * @return list<int> ids of the rules that fire
     */
    private static function byHand(Record $before, Record $after, World $world): array
    {
        $changed = [];
        foreach ($after->values as $name => $value) {
            if ($value !== $before->values[$name]) {
                $changed[$name] = true;
            }
        }
        $fires = [];
        [$b, $a] = [$before->values, $after->values];
        if (isset($changed['priority']) || isset($changed['status'])) {
            if ($a['priority'] === 'urgent' && $a['status'] === 'closed' && ! ($b['priority'] === 'urgent' && $b['status'] === 'closed')) {
                $fires[] = 1;
            }
            if ($a['priority'] === 'urgent' && $a['status'] === 'waiting'
                && ! ($b['priority'] === 'urgent' && $b['status'] === 'waiting')) {
                $fires[] = 5;
            }
        }
        if ((isset($changed['priority']) || isset($changed['paid'])) && $a['priority'] === 'high' && $a['paid'] === true
            && ! ($b['priority'] === 'high' && $b['paid'] === true)) {
            $fires[] = 2;
        }
        if ((isset($changed['priority']) || isset($changed['customer'])) && $a['priority'] === 'urgent'
            && self::plan($a, $world) === 'basic' && ! ($b['priority'] === 'urgent' && self::plan($b, $world) === 'basic')) {
            $fires[] = 3;
        }
        if ((isset($changed['priority']) || isset($changed['code'])) && $a['priority'] === 'low'
            && mb_strtolower((string) $a['code']) === 'x' && ! ($b['priority'] === 'low' && mb_strtolower((string) $b['code']) === 'x')) {
            $fires[] = 4;
        }

        return $fires;
    }

    /** @param  array<string, string|int|bool|null>  $values */
    private static function plan(array $values, World $world): string|int|bool|null
    {
        return is_int($values['customer']) ? $world->record('customer', $values['customer'])?->values['plan'] : null;
    }
}
