<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use Tests\Core\Support\Stories;
use Tests\Core\Support\World;
use VividLedger\Rule\Reading\RulePage;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Shape\Edit;
use VividLedger\Shape\Offer;

/** Whatever is offered for a word can be taken: the rule still reads, and the word is not what is wrong with it. */
final class OfferPropertyTest extends TestCase
{
    private const RULES = 150;

    public function test_what_is_offered_can_be_taken(): void
    {
        $world = new World;
        $world->records['ticket:8'] = World::made('ticket', 8, ['subject' => 'Another']);
        $reader = new RuleReader(World::schema(), $world, $world->zone());
        $taken = [];
        for ($seed = 1; $seed <= self::RULES; $seed++) {
            $stories = new Stories($seed, World::schema(), ['edda'], ['customer' => [1], 'ticket' => [8]]);
            $file = $stories->rule('A rule');
            foreach ($this->places($reader->read($file)) as $at) {
                $offers = $reader->read($file, asked: $at)->offers;
                self::assertNotSame([], $offers, "seed {$seed}: nothing is offered at {$at}");
                self::assertSame(
                    count($offers),
                    count(array_unique(array_map(
                        static fn (Offer $offer): string => "{$offer->group}/{$offer->label}/{$offer->hint}",
                        $offers,
                    ))),
                    "seed {$seed}: two offers at {$at} read alike",
                );
                $offer = $stories->one($offers);
                $page = $reader->read($this->with($file, $at, $offer));
                $faults = array_filter($page->problems, static fn ($problem): bool => $problem->at === $at && $problem->code !== 'missing');
                self::assertSame([], $faults, "seed {$seed}: ‘{$offer->label}’ at {$at}");
                $taken[(string) preg_replace('/\d+/', '#', $at)] = true;
            }
        }
        self::assertGreaterThan(12, count($taken), 'The rules have to have words of many kinds: '.implode(' ', array_keys($taken)));
    }

    public function test_nothing_is_looked_up_unless_somebody_asks(): void
    {
        $world = new World;
        self::assertSame([], $world->read([])->offers);
        self::assertSame([], (new RuleReader(World::schema(), $world, $world->zone()))->read(World::file(), asked: '/nowhere')->offers);
    }

    /** @return list<string> places whose word is chosen from what is offered */
    private function places(RulePage $page): array
    {
        $places = [];
        foreach ($page->rows as $row) {
            foreach ($row->words as $word) {
                if ($word->edit === Edit::Offer && $word->at !== null) {
                    $places[] = $word->at;
                }
            }
        }

        return array_values(array_unique($places));
    }

    /**
     * The file with an offer taken, as the editor puts it there.
     *
     * @param  array<mixed>  $file
     * @return array<mixed>
     */
    private function with(array $file, string $at, Offer $offer): array
    {
        $keys = array_map(static fn (string $key): string => strtr($key, ['~1' => '/', '~0' => '~']), array_slice(explode('/', $at), 1));
        $last = array_pop($keys);
        $here = &$file;
        foreach ($keys as $key) {
            if (! is_array($here[$key] ?? null)) {
                $here[$key] = [];
            }
            $here = &$here[$key];
        }
        if ($offer->merge) {
            $here[$last] = array_replace(is_array($here[$last] ?? null) ? $here[$last] : [], (array) $offer->value);
        } elseif ($offer->value === null) {
            unset($here[$last]);
        } else {
            $here[$last] = $offer->value;
        }

        return $file;
    }
}
