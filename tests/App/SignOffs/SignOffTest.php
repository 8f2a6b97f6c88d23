<?php

declare(strict_types=1);

namespace Tests\App\SignOffs;

use App\Models\Ledger\Entry;
use App\Models\SignOffs\StoredSignOff;
use App\Store\DomainError;
use App\Store\SignOffs\SignOffService;
use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use Tests\App\Support\TimeTestCase;
use VividLedger\SignOff\Answer;
use VividLedger\SignOff\SignOffStatus;

/** Sign-offs in the application: asked for by a save, decided by people or by time, and what follows each end. */
final class SignOffTest extends TimeTestCase
{
    public function test_a_yes_is_an_entry_and_the_lines_that_waited_for_it_are_done(): void
    {
        $quote = $this->discounted();
        $signOff = StoredSignOff::query()->with('seats.person')->sole();
        self::assertSame(['clea.harrow'], $signOff->seats->pluck('person.handle')->all(), 'Jonas asks, and Clea is above him');
        self::assertSame(SignOffStatus::Waiting, $signOff->status);
        $this->desk()->answer($signOff->id, $this->person('clea.harrow')->id, Answer::Yes, 'Good customer');
        $this->workNow();
        self::assertSame('sent', $this->stage($quote));
        $told = implode("\n", array_map(
            static fn (array $entry): string => "{$entry['head']['strong']} {$entry['head']['rest']}: {$entry['detail']}",
            $this->as('ines.okafor', 'GET', "records/quote/{$quote}/account")->assertOk()->json('entries'),
        ));
        self::assertStringContainsString('Clea Harrow agreed: “Good customer”', $told);
        self::assertStringContainsString('the sign-off is agreed', $told);
        $this->refused('ended', fn (): StoredSignOff => $this->desk()->answer(
            $signOff->id,
            $this->person('clea.harrow')->id,
            Answer::No,
            'No',
        ));
        self::assertSame(0, DB::table('scheduled_lines')->whereIn('status', ['pencilled', 'held'])->where('sort', 'line')->count());
    }

    public function test_a_no_needs_its_reason_and_strikes_out_what_waited_for_a_yes(): void
    {
        $quote = $this->discounted();
        $id = (int) StoredSignOff::query()->value('id');
        $clea = $this->person('clea.harrow')->id;
        $before = DB::table('entries')->count();
        $this->refused('no_comment', fn (): StoredSignOff => $this->desk()->answer($id, $clea, Answer::No, ' '));
        $this->refused('not_asked', fn (): StoredSignOff => $this->desk()->answer($id, $this->person('jonas.pike')->id, Answer::Yes, ''));
        self::assertSame($before, DB::table('entries')->count(), 'what is refused changes nothing');
        $this->desk()->answer($id, $clea, Answer::No, 'Too much');
        $this->workNow();
        self::assertSame(['draft', 'Not like this'], [$this->stage($quote), DB::table('messages')->latest('id')->value('subject')]);
        self::assertSame(['signed_off'], DB::table('scheduled_lines')->where('status', 'struck')->distinct()->pluck('struck_code')->all());
    }

    public function test_whoever_is_late_is_reminded_and_it_goes_up_until_time_ends_it(): void
    {
        $quote = $this->discounted();
        $this->passTo('2026-11-30T00:00:00Z');
        $signOff = StoredSignOff::query()->with('seats.person')->sole();
        self::assertSame(['clea.harrow', 'viktor.sand'], $signOff->seats->pluck('person.handle')->all());
        self::assertSame(
            ['viktor.sand'],
            $signOff->seats->where('state.value', 'waiting')->pluck('person.handle')->values()->all(),
        );
        $notes = DB::table('messages')->where('subject', 'like', 'Your sign-off is wanted%')->pluck('person_id');
        self::assertGreaterThan(1, $notes->count(), 'a reminder, and the note to the next one up');
        $this->passTo('2026-12-20T00:00:00Z');
        $signOff->refresh();
        self::assertSame([SignOffStatus::TimedOut, null], [$signOff->status, $signOff->wakes_at]);
        self::assertSame('draft', $this->stage($quote));
    }

    public function test_it_is_withdrawn_by_whoever_asked_and_ends_with_its_record(): void
    {
        $this->discounted();
        $id = (int) StoredSignOff::query()->value('id');
        $this->refused('not_allowed', fn (): StoredSignOff => $this->desk()->withdraw($id, $this->person('emil.crane')->id, false));
        self::assertSame(
            SignOffStatus::Withdrawn,
            $this->desk()->withdraw($id, $this->person('jonas.pike')->id, false)->status,
        );
        $other = $this->discounted('Another', false);
        $second = StoredSignOff::query()->latest('id')->firstOrFail();
        DB::table('records_quote')->where('id', $other)->delete();
        $clea = $this->person('clea.harrow')->id;
        $this->refused('ended', fn (): StoredSignOff => $this->desk()->answer($second->id, $clea, Answer::Yes, ''));
        self::assertSame(SignOffStatus::Stopped, $second->refresh()->status, 'nobody is told that a yes was taken which was not');
        self::assertSame(SignOffStatus::Stopped, $this->desk()->tend($second->id)->status);
    }

    public function test_reversing_what_asked_for_it_withdraws_it(): void
    {
        $this->discounted();
        $signOff = StoredSignOff::query()->sole();
        $preview = $this->as('ines.okafor', 'POST', 'reversals/preview', ['entries' => [$signOff->entry_id]])->assertOk();
        self::assertSame(1, $preview->json('signOffs'));
        $this->as('ines.okafor', 'POST', 'reversals', ['entries' => [$signOff->entry_id]])->assertOk();
        self::assertSame(SignOffStatus::Withdrawn, $signOff->refresh()->status);
        self::assertSame(0, $this->as('clea.harrow', 'GET', 'sign-offs?box=waiting')->json('total'));
        self::assertSame(1, Entry::query()->where('kind', 'reversed')->sole()->data['signOffs']);
        $this->workNow();
        self::assertSame(0, DB::table('scheduled_lines')->whereIn('status', ['pencilled', 'held'])->where('sort', 'line')->count());
        $again = $this->as('ines.okafor', 'POST', 'reversals/preview', ['entries' => [$signOff->entry_id]])->json();
        self::assertSame([[], 0], [$again['entries'], $again['signOffs']]);
    }

    public function test_the_inbox_is_for_those_who_have_a_part_in_it(): void
    {
        $this->discounted();
        foreach (['Moss', 'Sedge'] as $subject) {
            $this->discounted($subject, false);
        }
        $ids = DB::table('sign_offs')->orderBy('id')->pluck('id')->all();
        $box = fn (string $handle, string $box): array => $this->as($handle, 'GET', "sign-offs?box={$box}")->assertOk()->json();
        $mine = $box('clea.harrow', 'waiting');
        self::assertSame([$ids, 3, 3], [array_column($mine['signOffs'], 'id'), $mine['total'], $mine['mineWaiting']]);
        self::assertSame(
            ['Ferns', 'Jonas Pike', 'A discount of 20.0 %', true, 'Clea Harrow', 1],
            [...array_map(static fn (string $key): mixed => $mine['signOffs'][0][$key], ['recordTitle', 'asker', 'why', 'mine']),
                $mine['signOffs'][0]['seats'][0]['person'], $mine['signOffs'][0]['seats'][0]['step']],
        );
        self::assertSame([0, 3, 0], [
            $box('jonas.pike', 'waiting')['total'], $box('jonas.pike', 'asked')['total'], $box('clea.harrow', 'decided')['total'],
        ]);
        self::assertSame(3, $box('ines.okafor', 'all')['total']);
        $this->assertRefused($this->as('emil.crane', 'GET', 'sign-offs?box=all'), 403, 'not_allowed');
        $this->assertRefused($this->as('emil.crane', 'GET', "sign-offs/{$ids[0]}"), 404, 'not_found');
        $this->assertRefused($this->as('emil.crane', 'POST', "sign-offs/{$ids[0]}/withdraw"), 404, 'not_found');
        self::assertSame('Ferns', $this->as('jonas.pike', 'GET', "sign-offs/{$ids[0]}")->assertOk()->json('signOff.recordTitle'));
    }

    public function test_the_list_is_searched_narrowed_gone_on_with_and_taken_out(): void
    {
        $this->discounted();
        foreach (['Moss wall', 'Sedge', 'Moss roof'] as $subject) {
            $this->discounted($subject, false);
        }
        $ids = DB::table('sign_offs')->orderBy('id')->pluck('id')->all();
        $ines = fn (string $query): array => $this->as('ines.okafor', 'GET', "sign-offs?box=all&{$query}")->assertOk()->json();
        $this->desk()->answer($ids[1], $this->person('clea.harrow')->id, Answer::Yes, '');
        [$agreed, $clea] = [[$ids[1]], $this->person('clea.harrow')->id];
        self::assertSame([$ids[3], $ids[1]], array_column($ines('search=moss')['signOffs'], 'id'), 'the latest first');
        self::assertSame(4, $ines('search=discounts')['total'], 'of the rule as well');
        self::assertSame($agreed, array_column($ines('search=moss&status=agreed')['signOffs'], 'id'));
        self::assertSame([4, 0], [$ines("type=quote&person={$clea}")['total'], $ines('type=ticket')['total']]);
        $number = $ines('limit=1')['signOffs'][0]['recordNumber'];
        self::assertSame([$ids[3]], array_column($ines("search={$number}")['signOffs'], 'id'));
        // All of them are reached, each once, however many stand on a page.
        $seen = [];
        for ($after = ''; ; $after = "&after={$page['next']}") {
            $page = $ines("limit=2{$after}");
            array_push($seen, ...array_column($page['signOffs'], 'id'));
            if ($page['next'] === null) {
                break;
            }
        }
        self::assertSame(array_reverse($ids), $seen);
        $mine = $this->as('clea.harrow', 'GET', 'sign-offs?box=waiting&search=moss')->assertOk()->json();
        self::assertSame([[$ids[3]], 1, 3], [array_column($mine['signOffs'], 'id'), $mine['total'], $mine['mineWaiting']]);
        self::assertSame(0, $this->as('jonas.pike', 'GET', 'sign-offs?box=decided&search=moss')->json('total'), 'only one’s own');

        $file = $this->as('ines.okafor', 'GET', 'sign-offs/file?box=all&search=moss')->assertOk()->streamedContent();
        $lines = explode("\r\n", trim($file));
        self::assertCount(3, $lines);
        self::assertStringContainsString('Moss wall,Discounts,A discount of 20.0 %,Jonas Pike,agreed', $lines[2]);
        self::assertStringContainsString(',Clea Harrow', $lines[1]);
        self::assertSame(1, Entry::query()->where('kind', 'exported')->count(), 'and that it was taken out stands in the ledger');
        $this->assertRefused($this->as('emil.crane', 'GET', 'sign-offs/file?box=all'), 403, 'not_allowed');
        $this->assertRefused($this->as('ines.okafor', 'GET', 'sign-offs?status=fine'), 422, 'invalid_request');
    }

    public function test_several_are_answered_at_once_and_each_tells_what_became_of_it(): void
    {
        $quotes = [$this->discounted(), $this->discounted('Moss', false), $this->discounted('Sedge', false)];
        $ids = DB::table('sign_offs')->orderBy('id')->pluck('id')->all();
        $answer = fn (string $handle, array $body): TestResponse => $this->as($handle, 'POST', 'sign-offs/answers', $body);
        $before = DB::table('entries')->count();
        $this->assertRefused($answer('clea.harrow', ['ids' => $ids, 'answer' => 'no', 'comment' => ' ']), 422, 'no_comment');
        $this->assertRefused($answer('clea.harrow', ['ids' => [], 'answer' => 'yes']), 422, 'invalid_request');
        self::assertNotContains(null, $answer('emil.crane', ['ids' => $ids, 'answer' => 'yes'])->assertOk()->json('*.problem'));
        self::assertSame($before, DB::table('entries')->count(), 'what is refused changes nothing');
        $this->as('jonas.pike', 'POST', "sign-offs/{$ids[1]}/withdraw")->assertOk()->assertJsonPath('status', 'withdrawn');
        self::assertSame(
            [null, 'It was withdrawn.', null, 'There is no sign-off 999999.'],
            $answer('clea.harrow', ['ids' => [...$ids, 999999], 'answer' => 'yes', 'comment' => 'Fine'])->assertOk()->json('*.problem'),
        );
        $this->workNow();
        self::assertSame(['sent', 'draft', 'sent'], array_map($this->stage(...), $quotes));
        $told = $this->as('clea.harrow', 'GET', 'sign-offs?box=decided')->assertOk()->json('signOffs');
        self::assertSame([['agreed', 'Fine'], ['agreed', 'Fine']], array_map(
            static fn (array $one): array => [$one['status'], $one['seats'][0]['comment']],
            $told,
        ));
    }

    public function test_rules_lists_and_until_read_how_it_stands_and_lines_end_with_it(): void
    {
        $this->inForce(self::file());
        $this->inForce([
            'name' => 'Still waiting', 'on' => 'quote', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'once_per_record'],
            'until' => ['kind' => 'all', 'of' => [['kind' => 'sign_off_is', 'status' => 'agreed']]],
            'lines' => [['kind' => 'remind', 'to' => ['kind' => 'owner'], 'text' => 'Still with them', 'at' => [
                'kind' => 'every', 'amount' => 1, 'unit' => 'day', 'times' => 9,
            ]]],
        ]);
        $quote = $this->discounted('Ferns', false);
        $other = $this->discounted('Moss', false);
        $plain = $this->created('quote', ['subject' => 'Plain', 'stage' => 'draft', 'customer' => $this->customer('Plain')['id']]);
        $asked = [$quote, $other, $plain['record']['id']];
        $listed = fn (string $kind, string $status): array => $this->as(
            'ines.okafor', 'GET', 'records/quote?sort=created_at&filter='.rawurlencode((string) json_encode(
                ['kind' => 'all', 'of' => [['kind' => $kind, 'status' => $status]]],
            )),
        )->assertOk()->json('rows.*.id');
        self::assertEqualsCanonicalizing([$quote, $other], $listed('sign_off_is', 'waiting'));
        self::assertSame([$plain['record']['id']], $listed('sign_off_is_not', 'waiting'), 'one that was never asked for is not open');
        $this->passTo('2026-11-26T09:00:00Z');
        $reminders = static fn (int $record): array => DB::table('scheduled_lines')
            ->where(['record_id' => $record, 'status' => 'pencilled', 'sort' => 'line'])->whereNotNull('due_at')->pluck('due_at')->all();
        self::assertNotSame([], $reminders($quote));
        foreach ([[$quote, Answer::Yes], [$other, Answer::No]] as [$record, $answer]) {
            $this->desk()->answer(
                (int) StoredSignOff::query()->where('record_id', $record)->value('id'),
                $this->person('clea.harrow')->id, $answer, 'Said',
            );
        }
        $this->workNow();
        self::assertSame([[$quote], [$other]], [$listed('sign_off_is', 'agreed'), $listed('sign_off_is', 'declined')]);
        self::assertEqualsCanonicalizing($asked, $listed('sign_off_is_not', 'timed_out'));
        self::assertSame([], $reminders($quote), 'decided, and nobody is reminded any more');
        self::assertNotSame([], $reminders($other), 'a no does not end it: the rule says “until agreed”');
        $told = (string) json_encode($this->as('ines.okafor', 'GET', "records/quote/{$quote}/account")->json('entries'));
        self::assertStringContainsString('its sign-off is agreed', $told);
    }

    /** @return int id of a quote with a discount that wants a sign-off */
    private function discounted(string $subject = 'Ferns', bool $isFirst = true): int
    {
        if ($isFirst) {
            $this->inForce(self::file());
        }

        return $this->created('quote', [
            'subject' => $subject, 'stage' => 'draft', 'amount' => '1000', 'discount' => '20',
            'customer' => $this->customer($subject)['id'],
            'owner' => $this->person('jonas.pike')->id,
        ], 'jonas.pike')['record']['id'];
    }

    /** @return array<string, mixed> */
    public static function file(): array
    {
        $line = static fn (array $line, string $status): array => $line + [
            'at' => ['kind' => 'signed_off', 'line' => 'asked', 'status' => $status, 'amount' => 0, 'unit' => 'day'],
        ];

        return [
            'name' => 'Discounts', 'on' => 'quote', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'once_per_record'],
            'onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'over', 'field' => 'discount', 'value' => '12']]],
            'lines' => [
                ['kind' => 'sign_off', 'key' => 'asked', 'why' => 'A discount of {discount}', 'steps' => [[
                    'who' => ['kind' => 'people', 'people' => [['kind' => 'manager', 'of' => ['kind' => 'owner']]]],
                    'within' => ['amount' => 3, 'unit' => 'day'], 'remind' => ['amount' => 1, 'unit' => 'day'], 'late' => 'up',
                ]]],
                $line([
                    'kind' => 'set_fields', 'set' => [['field' => 'stage', 'to' => ['kind' => 'value', 'value' => 'sent']]],
                ], 'agreed'),
                $line(['kind' => 'remind', 'to' => ['kind' => 'owner'], 'text' => 'Not like this'], 'declined'),
            ],
        ];
    }

    private function stage(int $quote): string
    {
        return (string) DB::table('records_quote')->where('id', $quote)->value('stage');
    }

    private function desk(): SignOffService
    {
        return $this->app->make(SignOffService::class);
    }

    /** @param  \Closure(): StoredSignOff  $act */
    private function refused(string $code, \Closure $act): void
    {
        try {
            $act();
            self::fail("It should have been refused: {$code}.");
        } catch (DomainError $refused) {
            self::assertSame($code, $refused->reason);
        }
    }
}
