<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Tests\Core\Support\World;
use VividLedger\Facts\Children;
use VividLedger\Facts\OverlayFacts;
use VividLedger\Facts\Total;
use VividLedger\Facts\TotalKind;

/** Totals that are kept up within a decision, against the same ones asked for anew, through any changes in any order. */
final class RunningTotalsTest extends TestCase
{
    private const ROUNDS = 60;

    private const CHANGES = 25;

    public function test_a_total_that_is_kept_up_is_the_total(): void
    {
        $random = new Randomizer(new Mt19937(7));
        $fields = World::schema()->types['ticket']->fields;
        $children = new Children('ticket', 'customer');
        $totals = [
            new Total(TotalKind::Count, $children, null, null, 'Number'),
            new Total(TotalKind::Sum, $children, $fields['cost'], null, 'Cost'),
            new Total(TotalKind::Latest, $children, $fields['due'], null, 'Latest'),
            new Total(TotalKind::Earliest, $children, $fields['due'], null, 'Earliest'),
        ];
        $ticket = static fn (int $id): array => [
            'customer' => $random->getInt(0, 4) === 0 ? null : $random->getInt(1, 2),
            'cost' => $random->getInt(0, 3) === 0 ? null : $random->getInt(0, 99).'.50',
            'due' => $random->getInt(0, 3) === 0 ? null : '2026-11-'.str_pad((string) $random->getInt(1, 9), 2, '0', STR_PAD_LEFT),
        ];
        $asked = 0;
        for ($round = 0; $round < self::ROUNDS; $round++) {
            $world = new World;
            for ($id = 1; $id <= 8; $id++) {
                $world->records["ticket:{$id}"] = World::made('ticket', $id, $ticket($id));
            }
            $kept = new OverlayFacts($world, World::schema());
            $laid = [];
            for ($change = 0; $change < self::CHANGES; $change++) {
                $id = $random->getInt(1, 10);
                $record = World::made('ticket', $id, $ticket($id), 2);
                $laid[] = $random->getInt(0, 5) === 0 ? ['remove', $record] : ['lay', $record];
                [$what, $record] = $laid[count($laid) - 1];
                $kept->{$what}($record);
                $anew = new OverlayFacts($world, World::schema());
                foreach ($laid as [$again, $before]) {
                    $anew->{$again}($before);
                }
                // Not all of them are asked for each time: what nobody has asked for is not kept up.
                foreach ($totals as $place => $total) {
                    foreach ($random->getInt(0, 2) > 0 ? [1, 2] : [] as $parent) {
                        self::assertSame($anew->total($total, $parent, []), $kept->total($total, $parent, []),
                            "round {$round}, {$change}, {$place}");
                        $asked++;
                    }
                }
            }
        }
        self::assertGreaterThan(5000, $asked);
    }
}
