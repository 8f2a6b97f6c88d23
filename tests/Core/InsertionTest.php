<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use Tests\Core\Support\Filler;
use Tests\Core\Support\World;
use VividLedger\Rule\Cases\IfCase;
use VividLedger\Rule\Line\Lines;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Shape\EditorSort;
use VividLedger\Shape\Word;

/** Everything a page offers to put in can be put in force by somebody who only fills in what the page then says is missing. */
final class InsertionTest extends TestCase
{
    private World $world;

    private RuleReader $reader;

    private Filler $filler;

    /** @var array<string, string> what cannot be mended, by what was put in */
    private array $stuck = [];

    protected function setUp(): void
    {
        $this->world = new World;
        $this->world->ladders['Stairs'] = [
            ['after' => ['amount' => 0, 'unit' => 'minute'], 'to' => ['kind' => 'named', 'handle' => 'edda'], 'do' => ['tell']],
        ];
        $this->world->records['ticket:8'] = World::made('ticket', 8, ['subject' => 'Another']);
        $this->reader = new RuleReader(World::schema(), $this->world, $this->world->zone());
        $this->filler = new Filler($this->reader, World::schema());
    }

    public function test_every_trigger_and_every_guard_can_be_chosen(): void
    {
        foreach (['/when', '/fires'] as $at) {
            $this->everythingAt(World::file(), static fn (Word $word): bool => $word->at === $at, 2);
        }
        self::assertSame([], $this->stuck);
    }

    public function test_every_line_can_be_added_and_everything_in_it_chosen(): void
    {
        foreach (Lines::all() as $line) {
            $file = ['lines' => [$line::shape()->begun()]] + World::file();
            $at = '/lines/0';
            if (isset(Lines::headings()[$line::kind()])) {
                // A heading of a case stands below the first of its cases, and something has to be done in them.
                $comment = ['kind' => 'comment', 'text' => 'A'];
                $file['lines'] = $line === IfCase::class ? [...$file['lines'], $comment]
                    : [IfCase::shape()->begun(), $comment, ...$file['lines']];
                $at = $line === IfCase::class ? $at : '/lines/2';
            }
            if ($line::kind() === 'send_list') {
                $file['when'] = [
                    'kind' => 'timetable', 'rrule' => 'FREQ=DAILY', 'time' => '08:00', 'from' => '2026-11-24', 'per' => ['kind' => 'owner'],
                ];
                unset($file['onlyIf']);
            }
            $this->everythingAt($file, static fn (Word $word): bool => str_starts_with((string) $word->at, $at), 2);
        }
        self::assertSame([], $this->stuck);
    }

    public function test_every_condition_can_be_put_in(): void
    {
        $file = ['onlyIf' => ['kind' => 'all', 'of' => [new \stdClass]]] + World::file();
        $this->everythingAt((array) json_decode((string) json_encode($file), true),
            static fn (Word $word): bool => str_starts_with((string) $word->at, '/onlyIf'), 3);
        self::assertSame([], $this->stuck);
    }

    /**
     * Fills a page in, then takes each offer of each word, and fills in again.
     *
     * @param  array<mixed>  $file
     * @param  callable(Word): bool  $which
     * @param  int  $depth  how often something is put in one after the other
     */
    private function everythingAt(array $file, callable $which, int $depth, string $path = ''): void
    {
        [$sound, $problem] = $this->filler->filled($file);
        if ($problem !== null) {
            $this->stuck[$path] = "{$problem->code} at {$problem->at}: {$problem->message} ".json_encode($sound);

            return;
        }
        if ($depth === 0) {
            return;
        }
        foreach (array_filter(Filler::words($this->reader->read($sound)), $which) as $word) {
            $sort = $word->editor?->sort;
            $here = "{$path} › {$word->text}";
            if ($sort === EditorSort::Begin) {
                $this->everythingAt(Filler::put($sound, (string) $word->at, $word->editor?->begins), $which, $depth - 1, $here);
            }
            foreach ($this->filler->ways($sound, $word) as $way) {
                $this->everythingAt(Filler::formed($sound, $word, $way), $which, $depth - 1, "{$here} › {$way->label}");
            }
            foreach ($this->filler->offers($sound, $word) as $offer) {
                $this->everythingAt(Filler::taken($sound, $word, $offer), $which, 0, "{$here} › {$offer->label}");
            }
        }
    }
}
