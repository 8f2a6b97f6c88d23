<?php

declare(strict_types=1);

namespace Tests\App\Operations;

use App\Models\Outbound\StoredMessage;
use App\Store\Setup\Company;
use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\Process\Process;
use Tests\App\Support\AppTestCase;
use Tests\App\Support\RunsTogether;

/**
 * A worker that has been running before something is made, changed or dropped that rules name: what it does from then on is what a
 * worker would do that has only just begun.
 */
final class LongLivedTest extends AppTestCase
{
    use RunsTogether;

    private static ?Process $worker = null;

    private static int $hours = 0;

    protected function setUp(): void
    {
        parent::setUp();
        // The worker goes by the clock of the house in the database.
        $this->clockAt('now');
        if (self::$worker === null) {
            self::$worker = new Process([PHP_BINARY, 'artisan', 'ledger:work', 'lines', 'sweep'], base_path(), [
                'DB_DATABASE' => (string) getenv('DB_DATABASE'),
            ], timeout: null);
            self::$worker->start();
            // It has read everything once, so that it could remember it.
            $this->inForce(self::rule('Warm', ['kind' => 'comment', 'text' => 'Warm']));
            $ticket = $this->fires();
            $this->comes(fn (): bool => $this->comments($ticket) !== []);
        }
    }

    public static function tearDownAfterClass(): void
    {
        self::$worker?->stop(5);
        self::$worker = null;
        self::$prepared = false;
        parent::tearDownAfterClass();
    }

    /**
     * A kind of thing: where it is kept, as it is at first and as it is changed to; the line that names it; and what is found of the line
     * on a ticket.
     *
     * @return iterable<string, array{string, array<string, mixed>, array<string, mixed>, array<string, mixed>, string}>
     */
    public static function things(): iterable
    {
        $ask = ['kind' => 'person', 'person' => ['kind' => 'named', 'handle' => 'jonas.pike']];
        $letter = ['recordType' => 'ticket', 'name' => 'A letter', 'subject' => 'First', 'body' => '<p>First</p>'];
        yield 'a letter' => ['letters', $letter, ['subject' => 'Second'] + $letter,
            ['kind' => 'send_message', 'channel' => 'app', 'to' => [$ask], 'letter' => 'A letter'], 'messages'];
        $slip = ['recordType' => 'ticket', 'name' => 'A slip', 'subject' => 'First', 'body' => '<p>Well?</p>',
            'asks' => [['kind' => 'tick', 'label' => 'Well?']]];
        yield 'a slip' => ['slip-forms', $slip, ['subject' => 'Second'] + $slip, ['kind' => 'slip', 'to' => [$ask], 'slip' => 'A slip'],
            'slips'];
        $condition = static fn (string $of): array => ['recordType' => 'ticket', 'name' => 'A condition',
            'file' => ['kind' => 'all', 'of' => [
                ['kind' => 'is', 'field' => 'priority', 'value' => $of],
            ]]];
        yield 'a condition' => ['named-conditions', $condition('urgent'), $condition('normal'), ['kind' => 'comment', 'text' => 'Second',
            'onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'named', 'name' => 'A condition']]]], 'comments'];
        $ladder = static fn (string $who): array => ['name' => 'A ladder', 'rungs' => [['after' => ['amount' => 0, 'unit' => 'minute'],
            'to' => ['kind' => 'named', 'handle' => $who], 'do' => ['tell']]]];
        yield 'a ladder' => ['ladders', $ladder('jonas.pike'), $ladder('clea.harrow'), ['kind' => 'escalate', 'ladder' => 'A ladder'],
            'told'];
        $route = static fn (string $who): array => ['recordType' => 'ticket', 'name' => 'A route', 'steps' => [['who' => [
            'kind' => 'people', 'people' => [['kind' => 'named', 'handle' => $who]],
        ]]]];
        yield 'a route' => ['routes', $route('jonas.pike'), $route('clea.harrow'),
            ['kind' => 'sign_off', 'steps' => [['route' => 'A route']]],
            'asked'];
        $endpoint = ['name' => 'An endpoint', 'url' => 'https://books.example/first', 'method' => 'POST', 'headers' => [], 'timeout' => 5,
            'tries' => 3, 'atOnce' => 2, 'perMinute' => 60, 'mayBeInside' => false];
        yield 'an endpoint' => ['endpoints', $endpoint, ['method' => 'PUT'] + $endpoint,
            ['kind' => 'call', 'endpoint' => 'An endpoint', 'send' => [['path' => 'subject', 'name' => 'subject']]], 'calls'];
    }

    /**
     * @param  array<string, mixed>  $first
     * @param  array<string, mixed>  $second
     * @param  array<string, mixed>  $line
     */
    #[DataProvider('things')]
    public function test_what_rules_name_is_known_as_it_is_now(string $shelf, array $first, array $second, array $line, string $found): void
    {
        $made = $this->as('ines.okafor', 'POST', $shelf, $first)->assertCreated()->json();
        $rule = $this->inForce(self::rule("With {$first['name']}", $line));
        $ticket = $this->fires();
        if ($found !== 'comments') {
            $this->comes(fn (): bool => $this->found($found, $ticket) !== []);
            self::assertSame(self::expected($found, false), $this->found($found, $ticket));
        }
        $this->as('ines.okafor', 'PUT', "{$shelf}/{$made['id']}", ['version' => $made['version'] ?? 1] + $second)->assertSuccessful();
        $ticket = $this->fires();
        $this->comes(fn (): bool => $this->found($found, $ticket) !== []);
        self::assertSame(self::expected($found, true), $this->found($found, $ticket));
        self::assertSame(0, DB::table('entries')->where(['kind' => 'line_failed', 'rule_id' => $rule])->count());
        $this->as('ines.okafor', 'POST', "rules/{$rule}/status", ['status' => 'retired'])->assertSuccessful();
    }

    /** A person is called, and stood in for, as they are by then. */
    public function test_people_are_known_as_they_are_now(): void
    {
        $this->as('ines.okafor', 'PATCH', 'people/'.$this->person('milo.trent')->id, ['name' => 'Milo Newname'])->assertSuccessful();
        $rule = $this->inForce(self::rule('Names Milo', ['kind' => 'comment', 'text' => 'Of {owner}']));
        $ticket = $this->fires(['owner' => $this->person('milo.trent')->id]);
        $this->comes(fn (): bool => $this->comments($ticket) !== []);
        self::assertSame(['Of Milo Newname'], $this->comments($ticket));
        $this->as('ines.okafor', 'POST', "rules/{$rule}/status", ['status' => 'retired'])->assertSuccessful();
        $this->app->make(Company::class)->setFallbackPerson($this->person('clea.harrow')->id);
        $rule = $this->inForce(self::rule('Nobody', ['kind' => 'give_task', 'title' => 'For whoever stands in',
            'to' => ['kind' => 'manager', 'of' => ['kind' => 'named', 'handle' => 'edda.marlow']]]));
        $ticket = $this->fires();
        $task = static fn (): mixed => DB::table('tasks')->where('record_id', $ticket)->value('assignee_id');
        $this->comes(static fn (): bool => $task() !== null);
        self::assertSame($this->person('clea.harrow')->id, (int) $task());
        $this->as('ines.okafor', 'POST', "rules/{$rule}/status", ['status' => 'retired'])->assertSuccessful();
    }

    /** What is dropped while a page that named it still runs is told, as by a worker that has only just begun. */
    public function test_what_is_dropped_is_gone_for_it(): void
    {
        $made = $this->as('ines.okafor', 'POST', 'letters', [
            'recordType' => 'ticket', 'name' => 'Dropped', 'subject' => 'First', 'body' => '<p>First</p>',
        ])->json();
        $rule = $this->inForce(self::rule('With a letter that goes', ['kind' => 'send_message', 'channel' => 'app', 'letter' => 'Dropped',
            'to' => [['kind' => 'person', 'person' => ['kind' => 'named', 'handle' => 'jonas.pike']]]]));
        $ticket = $this->fires();
        $this->comes(fn (): bool => $this->found('messages', $ticket) !== []);
        // By the clock that the worker goes by: its line is not due before an hour has passed for the house.
        $this->clockAt('+'.(3600 * self::$hours + 60).' seconds');
        $late = $this->ticket(['priority' => 'normal'])['record']['id'];
        $this->as('ines.okafor', 'PUT', "rules/{$rule}/draft", ['version' => DB::table('rules')->where('id', $rule)->value('draft_version'),
            'file' => self::rule('With a letter that goes', ['kind' => 'comment', 'text' => 'Instead'])])->assertSuccessful();
        $this->as('ines.okafor', 'POST', "rules/{$rule}/publish", [
            'version' => DB::table('rules')->where('id', $rule)->value('draft_version'),
        ])->assertOk();
        $this->as('ines.okafor', 'DELETE', "letters/{$made['id']}")->assertSuccessful();
        $this->goesOn();
        $this->comes(static fn (): bool => DB::table('scheduled_lines')->where('record_id', $late)->where('status',
            'pencilled')->doesntExist());
        self::assertSame(['line_failed'], DB::table('entries')->where('record_id', $late)->where('rule_id', $rule)
            ->whereIn('kind', ['line', 'line_failed'])->pluck('kind')->all());
        self::assertSame([], $this->found('messages', $late));
    }

    /**
     * @param  array<string, mixed>  $line
     * @return array<string, mixed> a rule whose one line falls due an hour after a ticket is made
     */
    private static function rule(string $name, array $line): array
    {
        return ['name' => $name, 'on' => 'ticket', 'when' => ['kind' => 'created'], 'onlyIf' => ['kind' => 'all', 'of' => [
            ['kind' => 'is', 'field' => 'priority', 'value' => 'normal'],
        ]], 'fires' => ['kind' => 'every_time'], 'lines' => [['at' => ['kind' => 'after', 'amount' => 1, 'unit' => 'hour']] + $line]];
    }

    /**
     * @param  array<string, mixed>  $values
     * @return int a ticket on which every rule has fired whose line has just fallen due
     */
    private function fires(array $values = []): int
    {
        $ticket = $this->ticket(['priority' => 'normal'] + $values)['record']['id'];
        $this->goesOn();

        return $ticket;
    }

    /** An hour passes for the house. */
    private function goesOn(): void
    {
        self::$hours++;
        DB::table('company')->update(['clock_offset' => 3600 * self::$hours + 60]);
    }

    /** @return list<string> what is found of a line, as it shows which form it had */
    private function found(string $what, int $ticket): array
    {
        $of = ['record_type' => 'ticket', 'record_id' => $ticket];

        return array_values(match ($what) {
            'messages' => StoredMessage::query()->where($of)->pluck('subject')->all(),
            'slips' => DB::table('slips')->where($of)->pluck('subject')->all(),
            'comments' => $this->comments($ticket),
            'told' => StoredMessage::query()->where($of)->get()
                ->map(static fn (StoredMessage $one): string => $one->recipients['to'][0]['name'])->unique()->all(),
            'asked' => DB::table('sign_off_seats as s')->join('sign_offs as o', 'o.id', '=', 's.sign_off_id')
                ->join('people as p', 'p.id', '=', 's.person_id')->where('o.record_id', $ticket)->pluck('p.name')->all(),
            'calls' => DB::table('calls')->where($of)->pluck('endpoint')->all(),
            default => [],
        });
    }

    /** @return list<string> */
    private static function expected(string $what, bool $isChanged): array
    {
        return match ($what) {
            'told', 'asked' => [$isChanged ? 'Clea Harrow' : 'Jonas Pike'],
            'calls' => ['An endpoint'],
            default => [$isChanged ? 'Second' : 'First'],
        };
    }

    /** @return list<string> */
    private function comments(int $ticket): array
    {
        return array_values(DB::table('comments')->where(['record_type' => 'ticket', 'record_id' => $ticket])
            ->where('text', '<>', self::$hours > 1 ? 'Warm' : '')->pluck('text')->all());
    }

    /** @param  \Closure(): bool  $what  waited for, as it comes within moments */
    private function comes(\Closure $what): void
    {
        for ($until = microtime(true) + 20; ! $what(); usleep(30_000)) {
            self::assertLessThan($until, microtime(true), 'It did not come. '.self::$worker?->getErrorOutput());
        }
        self::assertTrue(self::$worker?->isRunning() === true, 'it has run all the time');
    }
}
