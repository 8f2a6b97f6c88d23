<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Tests\Core\Support\World;

/** How a number moved: over random values, each way says what arithmetic says, and only of a change from one value to another. */
final class CrossesTest extends TestCase
{
    private const KINDS = ['rises_above', 'falls_below', 'rises_by', 'falls_by'];

    public function test_it_says_what_arithmetic_says(): void
    {
        $random = new Randomizer(new Mt19937(31));
        $some = static fn (): ?int => $random->getInt(0, 5) === 0 ? null : $random->getInt(-4, 4);
        $held = array_fill_keys(self::KINDS, 0);
        for ($count = 0; $count < 600; $count++) {
            [$was, $is, $limit] = [$some(), $some(), $random->getInt(-1, 4)];
            $known = $was !== null && $is !== null;
            $expected = [
                'rises_above' => $known && $was <= $limit && $is > $limit,
                'falls_below' => $known && $was >= $limit && $is < $limit,
                'rises_by' => $known && $is > $was && $is - $was > $limit,
                'falls_by' => $known && $is < $was && $was - $is > $limit,
            ];
            foreach (self::KINDS as $kind) {
                $fires = $this->fires($kind, $was, $is, $limit);
                self::assertSame($expected[$kind], $fires, "{$kind} {$limit}: ".json_encode([$was, $is]));
                $held[$kind] += $fires ? 1 : 0;
            }
        }
        self::assertGreaterThan(40, min($held));
    }

    public function test_a_new_record_has_not_moved(): void
    {
        foreach (self::KINDS as $kind) {
            $world = new World;
            $rule = $world->rule(['when' => ['kind' => 'created']] + self::onlyIf($kind, 0));
            self::assertSame([], $world->decide([$rule], null, World::ticket(['hours' => '3']))->firings(), $kind);
        }
    }

    private function fires(string $kind, ?int $was, ?int $is, int $limit): bool
    {
        $world = new World;
        $rule = $world->rule(['when' => ['kind' => 'changed'], 'fires' => ['kind' => 'every_time']] + self::onlyIf($kind, $limit));
        $state = static fn (?int $hours, string $code): array => ['hours' => $hours === null ? null : "{$hours}.0", 'code' => $code];

        return $world->decide([$rule], World::ticket($state($was, 'A')), World::ticket($state($is, 'B'), 2))->firings() !== [];
    }

    /** @return array<string, mixed> */
    private static function onlyIf(string $kind, int $limit): array
    {
        return ['onlyIf' => ['kind' => 'all', 'of' => [['kind' => $kind, 'field' => 'hours', 'value' => (string) $limit]]]];
    }
}
