<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use Tests\Core\Support\German;
use Tests\Core\Support\WholeRange;
use Tests\Core\Support\World;
use VividLedger\Proofread\Proofreader;
use VividLedger\Proofread\Remark;
use VividLedger\Proofread\RuleAmongOthers;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Shape\Node;
use VividLedger\Shape\Problem;
use VividLedger\Text\RuleText;

/** A rule is the same rule whoever reads it, and what is amiss with it is said in their language: over all that a rule can say. */
final class RulesInGermanTest extends TestCase
{
    /** Each word of a rule in turn is left out, made nonsense of, and made far too long. */
    public function test_whatever_is_amiss_is_said_in_german_at_the_same_place(): void
    {
        $world = self::world();
        $reader = new RuleReader(World::schema(), $world, $world->zone());
        [$english, $same] = [[], []];
        foreach (self::files($world, 12) as $seed => $file) {
            foreach (self::spoilt($file) as $what => $spoilt) {
                $ours = $reader->read($spoilt)->problems;
                $theirs = German::of(static fn (): array => $reader->read($spoilt)->problems);
                $place = static fn (Problem $problem): string => "{$problem->at} {$problem->code}";
                self::assertSame(array_map($place, $ours), array_map($place, $theirs), "seed {$seed}, {$what}");
                foreach ($ours as $nth => $problem) {
                    $english[$problem->message] = true;
                    if ($problem->message === $theirs[$nth]->message) {
                        $same[$problem->message] = "seed {$seed}, {$what}";
                    }
                }
            }
        }

        self::assertSame([], $same);
        self::assertGreaterThan(80, count($english), 'of many kinds');
    }

    public function test_its_words_are_the_same_and_remarks_on_it_are_german(): void
    {
        $world = self::world();
        $reader = new RuleReader(World::schema(), $world, $world->zone());
        $text = new RuleText(World::schema(), $world, $world->zone());
        [$rules, $remarked, $same] = [[], [], []];
        foreach (self::files($world, 300) as $seed => $file) {
            $page = $reader->read($file, $seed);
            $read = static fn (): array => [
                $reader->read($file, $seed)->aloud(), $printed = $text->print($file), json_encode($text->parse($printed)->file),
            ];
            self::assertSame($read(), German::of($read), "seed {$seed}");
            self::assertNotNull($page->rule);
            $all = new RuleAmongOthers($page->rule, new Node($file), World::schema(), array_slice($rules, -15));
            $rules[] = $page->rule;
            $theirs = German::of(static fn (): array => Proofreader::read($all));
            foreach (Proofreader::read($all) as $nth => $remark) {
                $remarked[$remark->code] = true;
                if (self::told($remark) === self::told($theirs[$nth])) {
                    $same[$remark->code] = "seed {$seed}: {$remark->message}";
                }
            }
        }

        self::assertSame([], $same);
        self::assertGreaterThan(6, count($remarked));
    }

    private static function told(Remark $remark): string
    {
        return "{$remark->message} {$remark->advice}";
    }

    /**
     * @param  array<array-key, mixed>  $node
     * @return iterable<string, array<array-key, mixed>>
     */
    private static function spoilt(array $node, string $at = ''): iterable
    {
        foreach ($node as $name => $part) {
            $without = $node;
            unset($without[$name]);
            yield "without {$at}/{$name}" => array_is_list($node) ? array_values($without) : $without;
            if (! is_array($part)) {
                yield "nonsense at {$at}/{$name}" => [$name => 'nonsense'] + $node;
                yield "too much at {$at}/{$name}" => [$name => str_repeat('much ', 1000)] + $node;

                continue;
            }
            foreach (self::spoilt($part, "{$at}/{$name}") as $what => $spoilt) {
                yield $what => [...$node, $name => $spoilt];
            }
        }
    }

    /** @return iterable<int, array<string, mixed>> rule files by seed */
    private static function files(World $world, int $most): iterable
    {
        for ($seed = 1; $seed <= $most; $seed++) {
            $range = new WholeRange($seed, World::schema(), $world, $world->zone(), ['tomas', 'ines'], [
                'customer' => [1, 2], 'ticket' => [7],
            ]);
            yield $seed => $range->rule("Rule {$seed}", $seed % 5 === 0 ? 'customer' : 'ticket');
        }
    }

    private static function world(): World
    {
        $world = new World;
        $world->records['ticket:7'] = World::ticket();

        return $world;
    }
}
