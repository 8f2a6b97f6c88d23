<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use Tests\Core\Support\WholeRange;
use Tests\Core\Support\World;
use VividLedger\People\PersonExpressions;
use VividLedger\Proofread\Proofreader;
use VividLedger\Proofread\Remark;
use VividLedger\Proofread\RuleAmongOthers;
use VividLedger\Record\EventKind;
use VividLedger\Rehearse\PaperEntry;
use VividLedger\Rehearse\Played;
use VividLedger\Rehearse\WhatIf\FieldsChange;
use VividLedger\Rehearse\WhatIf\WordArrives;
use VividLedger\Rule\Guard\RepeatGuards;
use VividLedger\Rule\Line\Lines;
use VividLedger\Rule\Line\SendList;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Rule\Timing\Timings;
use VividLedger\Rule\Trigger\Triggers;
use VividLedger\Rule\Value\AssignedValues;
use VividLedger\Shape\Node;
use VividLedger\Text\RuleText;

/** Everything a rule can say, put together at random: it reads, it has words, it can be proofread and rehearsed. */
final class WholeRangeTest extends TestCase
{
    private const RULES = 500;

    public function test_the_range_is_whole_and_all_of_it_reads(): void
    {
        $used = [];
        foreach ($this->rules() as $seed => [$file, $page, $range]) {
            self::assertSame(
                [],
                array_map(static fn ($problem): string => "{$problem->at} {$problem->code}: {$problem->message}", $page->problems),
                "seed {$seed}: ".json_encode($file),
            );
            self::assertNotNull($page->rule);
            self::assertStringStartsWith('When a ', $page->aloud(), "seed {$seed}");
            $used += $range->used;
        }
        $wanted = [];
        foreach (['trigger' => Triggers::ALL, 'guard' => RepeatGuards::ALL, 'timing' => Timings::ALL, 'line' => Lines::ALL,
            'value' => AssignedValues::ALL, 'person' => PersonExpressions::ALL] as $place => $kinds) {
            foreach ($kinds as $kind) {
                $wanted["{$place}: {$kind::kind()}"] = true;
            }
        }
        self::assertSame([], array_keys(array_diff_key($wanted, $used)), 'a kind that no rule here has');
    }

    public function test_all_of_it_has_words_and_comes_back_from_them(): void
    {
        $world = $this->world();
        $text = new RuleText(World::schema(), $world, $world->zone());
        $reader = new RuleReader(World::schema(), $world, $world->zone());
        foreach ($this->rules() as $seed => [$file, $page]) {
            $printed = $text->print($file);
            $read = $text->parse($printed);
            self::assertSame(
                [],
                array_map(static fn ($misread): string => "{$misread->line}: {$misread->message()}", $read->misread),
                "seed {$seed}: {$printed}",
            );
            self::assertSame(json_encode(RuleText::plain($file)), json_encode(RuleText::plain($read->file)), "seed {$seed}: {$printed}");
            self::assertSame($page->aloud(), $reader->read($read->file ?? [])->aloud(), "seed {$seed}: {$printed}");
            self::assertStringNotContainsString('⟦', $printed, "seed {$seed}: a piece without words of its own");
        }
    }

    /** Whoever types a line word by word is offered the next word, and at the end has said what the line says. */
    public function test_each_word_is_offered_behind_the_words_before_it(): void
    {
        $world = $this->world();
        $text = new RuleText(World::schema(), $world, $world->zone());
        $offered = 0;
        $missing = [];
        foreach ($this->rules() as $seed => [$file]) {
            if ($seed % 15 > 0) {
                continue;
            }
            foreach (array_slice(explode("\n", trim($text->print($file))), 1) as $row) {
                $above = str_starts_with($row, 'When') ? '' : 'When a '.World::schema()->types[$file['on']]->label." is created\n";
                preg_match_all('/“(?:\\\\.|[^”\\\\])*”|[^\s“]+/u', $row, $words, PREG_OFFSET_CAPTURE);
                foreach (array_slice($words[0], 1) as [$word, $at]) {
                    $typed = substr($row, 0, $at);
                    $wrong = array_values(array_filter(
                        $text->parse($above.$typed)->misread,
                        static fn ($one): bool => $one->line === ($above === '' ? 1 : 2),
                    ))[0] ?? null;
                    // What is a sentence already can go on all the same; quotations, numbers and what joins them are anybody's own.
                    if ($wrong === null || ($word === 'and' && str_ends_with(rtrim($typed), ';'))
                        || preg_match('/^[“\d€,;:.()%–-]/u', $word) === 1) {
                        continue;
                    }
                    // A time is offered by way of example.
                    $rest = (string) preg_replace('/\d\d:\d\d/', '09:00', ltrim(mb_strtolower(mb_substr($row, $wrong->position)), ' ,:;'));
                    $fits = array_filter(
                        $wrong->expected,
                        static fn (string $offer): bool => ($offer = mb_strtolower(trim($offer, ' ,:;()'))) !== '' && preg_match(
                            '/^(an? |the )?'.preg_quote($offer, '/').'|^'.preg_quote(
                                preg_replace('/^(an? |the )/', '', $offer) ?? '',
                                '/',
                            ).'|such as|number|…/u',
                            str_contains($offer, 'such as') || str_contains($offer, 'number') || str_contains($offer, '…') ? $offer : $rest,
                        ) === 1,
                    );
                    $offered++;
                    if ($fits === []) {
                        $missing[] = "seed {$seed}: behind “{$typed}” for “{$word}”: ".implode(' | ', array_slice($wrong->expected, 0, 12));
                    }
                }
            }
        }
        self::assertGreaterThan(900, $offered);
        self::assertSame([], array_slice($missing, 0, 20), count($missing)." of {$offered}");
    }

    public function test_all_of_it_is_proofread_and_rehearsed_and_comes_out_the_same_twice(): void
    {
        $world = $this->world();
        $world->records['ticket:7'] = World::ticket([
            'due' => '2026-12-03', 'since' => '2026-11-20T08:00:00Z', 'email' => 'guest@example.com',
        ]);
        $before = serialize([$world->records, $world->guards, $world->now]);
        $fired = 0;
        foreach ($this->rules() as $seed => [$file, $page]) {
            $rule = $page->rule;
            self::assertNotNull($rule);
            $remarks = static fn (): array => array_map(
                static fn (Remark $remark): string => "{$remark->at} {$remark->code}: {$remark->message}",
                Proofreader::read(new RuleAmongOthers($rule, new Node($file), World::schema(), [])),
            );
            self::assertSame($remarks(), $remarks(), "seed {$seed}");
            if (in_array(SendList::kind(), array_column($file['lines'], 'kind'), true)) {
                continue; // A list is made of many records, and a rehearsal has one.
            }
            $world->lastIds = [];
            $first = $world->outline($world->rehearse($rule));
            $world->lastIds = [];
            self::assertSame($first, $world->outline($world->rehearse($rule)), "seed {$seed}");
            $fired += count($first) > 1 ? 1 : 0;
        }
        self::assertSame($before, serialize([$world->records, $world->guards, $world->now]), 'nothing is touched');
        self::assertGreaterThan(self::RULES / 4, $fired, 'enough of them come to something');
    }

    /** Until a what-if happens, all is as it would be without it; and what happens comes in order. */
    public function test_what_is_supposed_changes_nothing_before_it(): void
    {
        $world = $this->world();
        $world->records['ticket:7'] = World::ticket(['due' => '2026-12-03', 'since' => '2026-11-20T08:00:00Z']);
        $random = new \Random\Randomizer(new \Random\Engine\Mt19937(3));
        $changed = 0;
        foreach ($this->rules() as $seed => [$file, $page]) {
            if ($page->rule === null || $file['lines'][0]['kind'] === SendList::kind()) {
                continue;
            }
            $world->lastIds = [];
            $plain = $world->rehearse($page->rule);
            // A holiday or somebody away is known beforehand; what happens is not.
            $at = $plain->from->modify('+'.$random->getInt(1, 300).' hours');
            $whatIf = [
                new FieldsChange(
                    $at,
                    $file['on'] === 'ticket' ? ['status' => 'closed', 'due' => '2027-01-04'] : ['plan' => 'basic', 'open' => '4'],
                ),
                new WordArrives($at, EventKind::Reply, 'Hello'), new WordArrives($at, EventKind::Comment, 'Hello'),
            ][$seed % 3];
            $world->lastIds = [];
            $with = $world->rehearse($page->rule, [$whatIf]);
            $world->lastIds = [];
            $plain = $world->rehearse($page->rule, [], $with->until);
            $before = static fn (Played $played): array => array_slice(
                $world->outline($played),
                0,
                count(array_filter($played->entries, static fn (PaperEntry $entry): bool => $entry->at < $at)),
            );
            self::assertSame($before($plain), $before($with), "seed {$seed}: ".json_encode($file));
            $moments = array_map(static fn (PaperEntry $entry): int => $entry->at->getTimestamp(), $with->entries);
            $inOrder = $moments;
            sort($inOrder);
            self::assertSame($inOrder, $moments, "seed {$seed}: it comes in order");
            $changed += $world->outline($plain) === $world->outline($with) ? 0 : 1;
        }
        self::assertGreaterThan(self::RULES / 2, $changed);
    }

    /** A remark stands at a word that is there, and where it comes with a way out, taking that makes it go and leaves a sound rule. */
    public function test_whatever_is_remarked_has_a_word_and_a_way_out_that_works(): void
    {
        $world = $this->world();
        $reader = new RuleReader(World::schema(), $world, $world->zone());
        $rules = [];
        $codes = [];
        foreach ($this->rules() as $seed => [$file, $page]) {
            $rule = $page->rule;
            self::assertNotNull($rule);
            $others = array_slice($rules, -6);
            $rules[] = $rule;
            $remarks = Proofreader::read(new RuleAmongOthers($rule, new Node($file), World::schema(), $others));
            foreach ($remarks as $remark) {
                $where = "seed {$seed}: {$remark->code} at {$remark->at}: {$remark->message} ".json_encode($file);
                $codes[$remark->code] = ($codes[$remark->code] ?? 0) + 1;
                self::assertNotSame('', $remark->message.$remark->advice, $where);
                $words = array_merge(
                    ...array_map(
                        static fn ($row): array => array_map(static fn ($word): string => (string) $word->at, $row->words),
                        $page->rows,
                    ),
                );
                self::assertNotSame(
                    [],
                    array_filter($words, static fn (string $at): bool => $at === $remark->at || str_starts_with($at, "{$remark->at}/")),
                    $where,
                );
                if ($remark->fix === null) {
                    continue;
                }
                $mended = $reader->read(RemarkTest::put($file, $remark->fix->at, $remark->fix->value), $seed);
                if ($mended->rule === null) {
                    // A rule of which nothing is left, or whose other lines hung on this one.
                    self::assertNull($remark->fix->value, $where.json_encode($mended->problems));

                    continue;
                }
                $left = Proofreader::read(
                    new RuleAmongOthers(
                        $mended->rule,
                        new Node(RemarkTest::put($file, $remark->fix->at, $remark->fix->value)),
                        World::schema(),
                        $others,
                    ),
                );
                $same = static fn (array $in): int => count(array_filter(
                    $in,
                    static fn (Remark $one): bool => $one->code === $remark->code,
                ));
                self::assertLessThan($same($remarks), $same($left), "followed, it goes: {$where}");
            }
        }
        self::assertGreaterThan(6, count($codes), json_encode($codes));
    }

    /** @return iterable<int, array{array<string, mixed>, \VividLedger\Rule\Reading\RulePage, WholeRange}> by seed */
    private function rules(): iterable
    {
        $world = $this->world();
        $reader = new RuleReader(World::schema(), $world, $world->zone());
        for ($seed = 1; $seed <= self::RULES; $seed++) {
            $range = new WholeRange(
                $seed,
                World::schema(),
                $world,
                $world->zone(),
                ['tomas', 'ines'],
                ['customer' => [1, 2], 'ticket' => [7]],
            );
            $file = $range->rule("Rule {$seed}", $seed % 5 === 0 ? 'customer' : 'ticket');
            yield $seed => [$file, $reader->read($file, $seed), $range];
        }
    }

    private function world(): World
    {
        $world = new World;
        $world->records['ticket:7'] = World::ticket();

        return $world;
    }
}
