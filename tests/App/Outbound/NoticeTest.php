<?php

declare(strict_types=1);

namespace Tests\App\Outbound;

use App\Work\Outbound\NoticeLetters;
use Illuminate\Database\Events\QueryExecuted;
use Illuminate\Support\Facades\DB;
use Tests\App\Access\RightsWalkTest;
use Tests\App\Support\AppTestCase;
use Tests\App\Support\Delivers;

/** What happens for somebody: by the bell, by a letter at once, or in the letter of the morning; each thing once. */
final class NoticeTest extends AppTestCase
{
    use Delivers;

    public function test_who_is_named_in_a_comment_hears_of_it_if_they_see_the_record(): void
    {
        $ticket = $this->ticket()['record']['id'];
        $this->comment($ticket, '@lena.abara and @rhea.colt, could you look? (@nobody.here, mail@lena.abara, @bram.castellan)');
        $bell = fn (string $handle): array => array_column($this->as($handle, 'GET', 'notices')->json('notices'), 'title', 'kind');
        self::assertStringStartsWith('Bram Castellan: @lena.abara and @rhea.colt', $bell('lena.abara')['mention']);
        self::assertArrayHasKey('mention', $bell('rhea.colt'));
        self::assertArrayNotHasKey('mention', $bell('bram.castellan'), 'nobody is told what they wrote themselves');
        self::assertSame(2, DB::table('mentions')->count());

        // Who sees only what is their team’s is not told of another’s ticket.
        $desk = $this->as('ines.okafor', 'POST', 'roles', ['file' => RightsWalkTest::DESK])->assertCreated()->json('name');
        DB::table('people')->where('handle', 'rhea.colt')->update(['role' => $desk]);
        $sales = $this->ticket(['owner' => $this->person('jonas.pike')->id])['record']['id'];
        $this->comment($sales, '@rhea.colt once more');
        self::assertSame(2, DB::table('mentions')->count());
    }

    public function test_one_who_cannot_be_written_to_keeps_nobody_else_waiting(): void
    {
        $this->clockAt('2026-11-24T09:00:00Z');
        $ticket = $this->ticket()['record']['id'];
        foreach (['bram.castellan', 'lena.abara', 'rhea.colt'] as $handle) {
            $this->as($handle, 'PUT', 'notices/ways', ['mention' => 'letter'])->assertOk();
        }
        $this->clockAt('2026-11-24T09:01:00Z');
        $this->as('ines.okafor', 'POST', "records/ticket/{$ticket}/comments", ['text' => '@bram.castellan @lena.abara @rhea.colt look'])
            ->assertCreated();
        $first = min(array_map(fn (string $handle): int => $this->person($handle)->id, ['bram.castellan', 'lena.abara', 'rhea.colt']));
        DB::listen(static function (QueryExecuted $query) use ($first): void {
            if (str_starts_with($query->sql, 'insert ignore into `messages`') && in_array($first, $query->bindings, true)) {
                throw new \RuntimeException('Not this one.');
            }
        });
        try {
            $this->app->make(NoticeLetters::class)->work();
            self::fail('The trouble is told.');
        } catch (\RuntimeException $trouble) {
            self::assertSame('Not this one.', $trouble->getMessage());
        }
        self::assertSame(2, DB::table('messages')->where('channel', 'email')->where('record_id', 0)->count());
    }

    public function test_a_letter_comes_at_once_and_once(): void
    {
        $this->as('lena.abara', 'PUT', 'notices/ways', ['task' => 'pigeon'])->assertStatus(422);
        $ways = $this->as('lena.abara', 'PUT', 'notices/ways', ['task' => 'letter'])->assertOk()->json();
        self::assertSame(['note' => 'bell', 'task' => 'letter', 'mention' => 'bell'], array_column($ways, 'way', 'kind'));
        $this->clockAt('2026-11-24T09:00:00Z');
        $ticket = $this->ticket()['record'];
        $this->comment($ticket['id'], '@lena.abara for the bell alone');
        $this->task($ticket['id'], 'Ring <Marit> & co');
        $letters = $this->app->make(NoticeLetters::class);
        DB::listen($dies = static function (QueryExecuted $query): void {
            if (str_starts_with($query->sql, 'update `people`') && str_contains($query->sql, 'notices_sent_until')) {
                throw new \RuntimeException('The machine dies.');
            }
        });
        try {
            $letters->work();
            self::fail('It dies before it has marked what it told.');
        } catch (\RuntimeException) {
            DB::getEventDispatcher()->forget(\Illuminate\Database\Events\QueryExecuted::class);
        }
        self::assertSame(0, DB::table('messages')->where('channel', 'email')->count());
        self::assertSame([1, 0], [$letters->work(), $letters->work()]);
        $this->clockAt('2026-11-24T09:03:00Z');
        self::assertSame(0, $letters->work());

        $arrived = quoted_printable_decode($this->delivered((int) DB::table('messages')->where('channel', 'email')->value('id')));
        self::assertStringContainsString('lena.abara@larkmoss.example', $arrived);
        self::assertStringContainsString("/records/ticket/{$ticket['id']}\">{$ticket['number']}</a>", $arrived);
        self::assertStringContainsString('Ring &lt;Marit&gt; &amp; co', $arrived);
        self::assertStringContainsString("- Ring <Marit> & co ({$ticket['number']}): http", $arrived);
        self::assertStringNotContainsString('for the bell alone', $arrived);
        // It is hers: it stands on no record's leaf, where others would read what she was told.
        self::assertSame([], $this->as('bram.castellan', 'GET', "records/ticket/{$ticket['id']}/messages")->json());
    }

    public function test_the_morning_of_a_working_day_brings_the_rest_together(): void
    {
        $this->as('lena.abara', 'PUT', 'notices/ways', ['task' => 'morning', 'mention' => 'morning'])->assertOk();
        $ticket = $this->ticket()['record']['id'];
        $letters = $this->app->make(NoticeLetters::class);
        $this->clockAt('2026-11-27T07:05:00Z');
        self::assertSame(0, $letters->work(), 'nothing has happened yet');
        // Friday evening, and then a weekend.
        $this->clockAt('2026-11-27T18:00:00Z');
        $this->task($ticket, 'One');
        $this->comment($ticket, '@lena.abara two');
        foreach (['2026-11-27T19:00:00Z', '2026-11-28T08:00:00Z', '2026-11-29T08:00:00Z', '2026-11-30T06:30:00Z'] as $quiet) {
            $this->clockAt($quiet);
            self::assertSame(0, $letters->work(), $quiet);
        }
        $this->clockAt('2026-11-30T07:01:00Z');
        self::assertSame([1, 0], [$letters->work(), $letters->work()]);
        $letter = DB::table('messages')->where('channel', 'email')->sole();
        self::assertSame('Your morning: 2 things since you last heard', $letter->subject);
        self::assertStringContainsString('two', $letter->text);
        self::assertStringContainsString('One', $letter->html);
        $this->clockAt('2026-12-01T07:30:00Z');
        self::assertSame(0, $letters->work(), 'nothing happened since');
    }

    private function comment(int $ticket, string $text): void
    {
        $this->as('bram.castellan', 'POST', "records/ticket/{$ticket}/comments", ['text' => $text])->assertSuccessful();
    }

    private function task(int $ticket, string $title): void
    {
        $this->as('bram.castellan', 'POST', 'tasks', [
            'title' => $title, 'recordType' => 'ticket', 'recordId' => $ticket, 'assigneeId' => 'lena.abara',
        ])->assertCreated();
    }
}
