<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use Tests\Core\Support\Stories;
use Tests\Core\Support\World;
use VividLedger\Rule\Reading\RulePage;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Shape\Asked;
use VividLedger\Shape\EditorSort;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Problem;
use VividLedger\Shape\Way;

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
                    $put = [$way->with === null ? $this->put($file, $asked->at, null) : $this->filled($file, $asked->at, $way)];
                } else {
                    self::assertNotSame([], $page->offers, "{$where}: nothing is offered");
                    $put = array_map(fn (Offer $offer): array => $this->with($file, $asked->at, $offer), [$stories->one($page->offers)]);
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
                self::assertSame($this->at($file, "{$at}/kind"), ((array) $there[0]->value)['kind']);
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
        foreach ($page->rows as $row) {
            foreach ([...$row->words, ...($row->when === null ? [] : [$row->when])] as $word) {
                if ($word->at !== null && ($word->editor?->offers !== null || $word->editor?->ways !== null)) {
                    $asked["{$word->at} {$word->editor->sort->value}"] = new Asked($word->at, $word->editor->sort);
                }
            }
        }

        return array_values($asked);
    }

    /**
     * The file with a form filled in, where nobody changes what it shows.
     *
     * @param  array<mixed>  $file
     * @return array<mixed>
     */
    private function filled(array $file, string $at, Way $way): array
    {
        $there = $this->at($file, $at);
        $made = ($way->keeps && is_array($there) ? $there : []) + (array) $way->with;
        foreach ($way->fields as $field) {
            if ($field->sort === 'time' && $field->key === '') {
                $made = (array) $field->starts + array_diff_key($made, (array) $field->starts);
            } elseif ($field->isNeeded && $field->starts !== null) {
                $made[$field->key] = $field->starts;
            }
            foreach ($field->options as $option) {
                foreach ($option->value === ($made[$field->key] ?? null) ? $option->also : [] as $place => $value) {
                    $file = $this->put($file, $place, $value);
                }
            }
        }

        return $this->put($file, $at, $made);
    }

    /** @param  array<mixed>  $file */
    private function at(array $file, string $at): mixed
    {
        foreach (array_slice(explode('/', $at), 1) as $key) {
            $file = is_array($file) ? ($file[$key] ?? null) : null;
        }

        return $file;
    }

    /**
     * The file with an offer taken, as the editor puts it there.
     *
     * @param  array<mixed>  $file
     * @return array<mixed>
     */
    private function with(array $file, string $at, Offer $offer): array
    {
        $to = $offer->at ?? $at;
        $there = $this->at($file, $to);
        $file = $this->put($file, $to, $offer->merge ? (array) $offer->value + (is_array($there) ? $there : []) : $offer->value);
        foreach ($offer->also as $place => $value) {
            $file = $this->put($file, $place, $value);
        }

        return $file;
    }

    /**
     * @param  array<mixed>  $file
     * @return array<mixed>
     */
    private function put(array $file, string $at, mixed $value): array
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
        if ($value === null) {
            unset($here[$last]);
        } else {
            $here[$last] = $value;
        }

        return $file;
    }
}
