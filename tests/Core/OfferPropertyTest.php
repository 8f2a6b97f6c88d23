<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use Tests\Core\Support\Filler;
use Tests\Core\Support\Stories;
use Tests\Core\Support\World;
use VividLedger\Rule\Reading\RulePage;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Shape\Asked;
use VividLedger\Shape\EditorSort;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Problem;
use VividLedger\Shape\Word;

/** Whatever is offered for a word can be taken: the rule still reads, and the word is not what is wrong with it. */
final class OfferPropertyTest extends TestCase
{
    private const RULES = 70;

    public function test_what_is_offered_can_be_taken(): void
    {
        $world = new World;
        $world->records['ticket:8'] = World::made('ticket', 8, ['subject' => 'Another']);
        $reader = new RuleReader(World::schema(), $world, $world->zone());
        $taken = [];
        for ($seed = 1; $seed <= self::RULES; $seed++) {
            $stories = new Stories($seed, World::schema(), ['edda'], ['customer' => [1], 'ticket' => [8]]);
            $file = $stories->rule('A rule');
            foreach ($this->asked($reader->read($file)) as $asked) {
                $page = $reader->read($file, asked: $asked);
                $where = "seed {$seed}: {$asked->by->value} at {$asked->at}";
                $read = array_map(static fn (Offer $offer): string => "{$offer->group}/{$offer->label}/{$offer->hint}", $page->offers);
                self::assertSame($read, array_values(array_unique($read)), "{$where}: two offers read alike");
                if ($asked->by === EditorSort::Form) {
                    self::assertNotSame([], $page->ways, "{$where}: there is no way to fill it in");
                    $way = $stories->one($page->ways);
                    $put = [Filler::formed($file, $this->word($page, $asked), $way)];
                } else {
                    self::assertNotSame([], $page->offers, "{$where}: nothing is offered");
                    $put = [Filler::taken($file, $this->word($page, $asked), $stories->one($page->offers))];
                }
                foreach ($put as $next) {
                    $faults = array_filter($reader->read($next)->problems, static fn (Problem $problem): bool => $problem->at === $asked->at
                        && ! in_array($problem->code, ['missing', 'wrong_type'], true));
                    self::assertSame([], $faults, "{$where}: ".json_encode($next));
                }
                $taken[$asked->by->value.' '.preg_replace('/\d+/', '#', $asked->at)] = true;
            }
        }
        self::assertGreaterThan(40, count($taken), 'The rules have to have words of many kinds: '.implode("\n", array_keys($taken)));
    }

    public function test_what_stands_there_is_known_to_stand_there(): void
    {
        $world = new World;
        $reader = new RuleReader(World::schema(), $world, $world->zone());
        $known = 0;
        for ($seed = 1; $seed <= self::RULES; $seed++) {
            $file = (new Stories($seed, World::schema(), ['edda'], ['customer' => [1], 'ticket' => [8]]))->rule('A rule');
            foreach (['/when', '/fires'] as $at) {
                $offers = $reader->read($file, asked: new Asked($at, EditorSort::Choose))->offers;
                $there = array_values(array_filter($offers, static fn (Offer $offer): bool => $offer->isChosen === true));
                self::assertCount(1, $there, "seed {$seed}: {$at}");
                self::assertSame(Filler::at($file, "{$at}/kind"), ((array) $there[0]->value)['kind']);
                $known++;
            }
        }
        self::assertSame(2 * self::RULES, $known);
    }

    public function test_nothing_is_looked_up_unless_somebody_asks(): void
    {
        $world = new World;
        self::assertSame([], $world->read([])->offers);
        $reader = new RuleReader(World::schema(), $world, $world->zone());
        self::assertSame([], $reader->read(World::file(), asked: new Asked('/nowhere', EditorSort::Choose))->offers);
    }

    /** @return list<Asked> all words that offer something */
    private function asked(RulePage $page): array
    {
        $asked = [];
        foreach (Filler::words($page) as $word) {
            if ($word->at !== null && ($word->editor?->offers !== null || $word->editor?->ways !== null)) {
                $asked["{$word->at} {$word->editor->sort->value}"] = new Asked($word->at, $word->editor->sort);
            }
        }

        return array_values($asked);
    }

    private function word(RulePage $page, Asked $asked): Word
    {
        return array_values(array_filter(Filler::words($page), $asked->means(...)))[0];
    }
}
