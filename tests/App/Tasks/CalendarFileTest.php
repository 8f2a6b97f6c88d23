<?php

declare(strict_types=1);

namespace Tests\App\Tasks;

use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use Sabre\VObject\Reader;
use Tests\App\Support\AppTestCase;

/** Tasks go out to calendars and come back from them; a contact goes out as a card. */
final class CalendarFileTest extends AppTestCase
{
    public function test_what_was_moved_and_done_in_a_calendar_is_so_here(): void
    {
        $ticket = $this->ticket()['record']['id'];
        foreach (['Move me', 'Do me', 'Leave me'] as $title) {
            $this->as('lena.abara', 'POST', 'tasks', [
                'title' => $title, 'recordType' => 'ticket', 'recordId' => $ticket, 'dueAt' => '2026-11-30T09:00:00Z',
            ])->assertCreated();
        }
        $address = (string) $this->as('lena.abara', 'POST', 'feed')->json('url');
        $ics = (string) $this->get((string) parse_url($address, PHP_URL_PATH))->assertOk()->getContent();
        // As a calendar program keeps it: one moved, one ticked, and one of its own.
        $calendar = Reader::read($ics);
        foreach ($calendar->select('VTODO') as $todo) {
            if ((string) $todo->SUMMARY === 'Move me') {
                $todo->DUE = new \DateTimeImmutable('2026-12-02T15:00:00Z');
            } elseif ((string) $todo->SUMMARY === 'Do me') {
                $todo->add('STATUS', 'COMPLETED');
            }
        }
        $calendar->add('VTODO', [
            'UID' => 'abc@elsewhere.example', 'SUMMARY' => 'Buy labels', 'DESCRIPTION' => "Waterproof\nones", 'PRIORITY' => '1',
            'DUE' => new \DateTimeImmutable('2026-12-03', new \DateTimeZone('UTC')),
        ])->DUE['VALUE'] = 'DATE';
        $file = $calendar->serialize();

        $what = static fn (TestResponse $answer): array => array_column($answer->assertOk()->json(), 'what', 'title');
        $expected = ['Move me' => 'moved', 'Do me' => 'done', 'Leave me' => 'same', 'Buy labels' => 'given'];
        self::assertSame($expected, $what($this->bring($file, ['onlyRead' => true])));
        self::assertSame(3, DB::table('tasks')->where('status', 'open')->count(), 'reading changes nothing');
        $this->assertRefused($this->bring($file), 422, 'invalid_values', '/recordId');
        self::assertSame(3, DB::table('tasks')->where('status', 'open')->count(), 'all of it, or nothing');
        self::assertSame($expected, $what($this->bring($file, ['recordType' => 'ticket', 'recordId' => $ticket])));
        $tasks = DB::table('tasks')->orderBy('id')->get()->keyBy('title');
        self::assertSame(['2026-12-02 15:00:00', 'done', 'open'], [
            $tasks['Move me']->due_at, $tasks['Do me']->status, $tasks['Leave me']->status,
        ]);
        self::assertSame(['Waterproof'."\n".'ones', 'high', '2026-12-03 16:00:00'], [
            $tasks['Buy labels']->notes, $tasks['Buy labels']->priority, $tasks['Buy labels']->due_at,
        ], 'a day without a time ends at five');
        // However often it comes.
        self::assertSame(['same'], array_unique(array_values($what($this->bring($file)))));
        // What is another's is not changed by a file of mine.
        $this->as('rhea.colt', 'POST', 'tasks/calendar', ['text' => $file])->assertStatus(422);
        self::assertSame(4, DB::table('tasks')->count());
    }

    public function test_what_is_another_s_stays_theirs_and_what_stands_there_twice_counts_once(): void
    {
        $ticket = $this->ticket()['record']['id'];
        $theirs = $this->as('rhea.colt', 'POST', 'tasks', [
            'title' => 'Theirs', 'recordType' => 'ticket', 'recordId' => $ticket, 'dueAt' => '2026-11-30T09:00:00Z',
        ])->assertCreated()->json('id');
        $host = parse_url((string) config('app.url'), PHP_URL_HOST);
        $todo = static fn (string ...$lines): string => implode("\r\n", ['BEGIN:VTODO', ...$lines, "END:VTODO\r\n"]);
        $file = "BEGIN:VCALENDAR\r\nVERSION:2.0\r\n"
            .$todo("UID:task-{$theirs}@{$host}", 'SUMMARY:Theirs', 'DUE:20261215T090000Z', 'STATUS:COMPLETED')
            .$todo('SUMMARY:No name', 'DUE:20261201T090000Z', 'PRIORITY:9')
            .$todo('UID:twice', 'SUMMARY:The first', 'PRIORITY:5').$todo('UID:twice', 'SUMMARY:The second')
            ."END:VCALENDAR\r\n";
        $bring = fn (): array => array_column(
            $this->bring($file, ['recordType' => 'ticket', 'recordId' => $ticket])->assertOk()->json(), 'what', 'title',
        );
        self::assertSame(['Theirs' => 'same', 'No name' => 'given', 'The first' => 'given'], $bring());
        self::assertSame(['Theirs' => 'same', 'No name' => 'same', 'The first' => 'same'], $bring());
        $row = static fn (object $task): array => [$task->title, $task->due_at, $task->status, $task->priority];
        self::assertSame([
            ['Theirs', '2026-11-30 09:00:00', 'open', 'normal'], ['No name', '2026-12-01 09:00:00', 'open', 'low'],
            ['The first', null, 'open', 'normal'],
        ], DB::table('tasks')->orderBy('id')->get()->map($row)->all());
        self::assertSame($this->person('rhea.colt')->id, (int) DB::table('tasks')->where('id', $theirs)->value('assignee_id'));
    }

    public function test_what_is_no_calendar_is_told(): void
    {
        foreach (['nothing', "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nEND:VCALENDAR\r\n", "BEGIN:VCARD\r\nVERSION:4.0\r\nFN:x\r\nEND:VCARD",
            "BEGIN:VCALENDAR\r\nBEGIN:VTODO\r\nSUMMARY:x\r\nDUE:soon\r\nEND:VTODO\r\nEND:VCALENDAR"] as $odd) {
            $this->assertRefused($this->bring($odd), 422, 'invalid_values', '/text');
        }
    }

    public function test_a_contact_goes_out_as_a_card_with_what_one_may_see(): void
    {
        $customer = $this->customer('Brine & Barrow; Hotel');
        $contact = $this->created('contact', [
            'name' => 'Márit, Solheim', 'customer' => $customer['id'], 'email' => 'marit@brine.example', 'phone' => '+49 30 5550 1',
        ])['record'];
        $answer = $this->as('bram.castellan', 'GET', "records/contact/{$contact['id']}/card")->assertOk();
        self::assertStringContainsString("{$contact['number']}.vcf", (string) $answer->headers->get('Content-Disposition'));
        $card = Reader::read((string) $answer->getContent());
        self::assertSame(['4.0', 'Márit, Solheim', 'marit@brine.example', '+49 30 5550 1', ['Brine & Barrow; Hotel']], [
            (string) $card->VERSION, (string) $card->FN, (string) $card->EMAIL, (string) $card->TEL, $card->ORG->getParts(),
        ]);
        $this->as('bram.castellan', 'GET', 'records/contact/99999/card')->assertNotFound();
    }

    /** @param  array<string, mixed>  $more */
    private function bring(string $file, array $more = []): TestResponse
    {
        return $this->as('lena.abara', 'POST', 'tasks/calendar', ['text' => $file] + $more);
    }
}
