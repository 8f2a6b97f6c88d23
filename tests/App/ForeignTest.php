<?php

declare(strict_types=1);

namespace Tests\App;

use App\Demo\Demo;
use App\Evidence\Setup\Setups;
use App\Models\Outbound\StoredMessage;
use App\Store\CsvLine;
use App\Store\Library\Holidays;
use Illuminate\Support\Facades\DB;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Symfony\Component\Process\Process;
use Tests\App\Support\Delivers;
use Tests\App\Support\TimeTestCase;

/** What is written in open formats is read by libraries that are not ours, and what comes in means to us what it means to them. */
final class ForeignTest extends TimeTestCase
{
    use Delivers;

    private const ZONES = "BEGIN:VTIMEZONE\r\nTZID:Custom/Somewhere\r\nBEGIN:STANDARD\r\nDTSTART:20001029T030000\r\n"
        ."RRULE:FREQ=YEARLY;BYDAY=-1SU;BYMONTH=10\r\nTZOFFSETFROM:+0200\r\nTZOFFSETTO:+0100\r\nEND:STANDARD\r\nBEGIN:DAYLIGHT\r\n"
        ."DTSTART:20000326T020000\r\n"
        ."RRULE:FREQ=YEARLY;BYDAY=-1SU;BYMONTH=3\r\nTZOFFSETFROM:+0100\r\nTZOFFSETTO:+0200\r\nEND:DAYLIGHT\r\nEND:VTIMEZONE\r\n"
        ."BEGIN:VTIMEZONE\r\nTZID:Hills\r\nBEGIN:STANDARD\r\nDTSTART:19700101T000000\r\nTZOFFSETFROM:+0530\r\nTZOFFSETTO:+0545\r\n"
        ."END:STANDARD\r\nEND:VTIMEZONE\r\n";

    public function test_a_to_do_is_due_when_another_program_says_so(): void
    {
        $random = new Randomizer(new Mt19937(5));
        $todos = '';
        for ($nth = 0; $nth < 120; $nth++) {
            $at = date('Ymd\THis', $random->getInt(1_700_000_000, 1_900_000_000));
            $zone = ['Custom/Somewhere', 'Hills'][$random->getInt(0, 1)];
            $todos .= "BEGIN:VTODO\r\nUID:todo-{$nth}\r\nSUMMARY:Nr {$nth}\r\n".match ($random->getInt(0, 3)) {
                0, 1 => "DUE;TZID={$zone}:{$at}\r\n",
                // Days are days of the wall clock; hours are told apart from them below, where another program counts them as those too.
                2 => "DTSTART;TZID={$zone}:{$at}\r\nDURATION:P".$random->getInt(1, 200)."D\r\n",
                default => "DUE:{$at}Z\r\n",
            }."END:VTODO\r\n";
        }
        // Moments an hour about the turns of summer time, in a second calendar of the same file.
        $second = '';
        foreach (['20270328T013000', '20270328T033000', '20271031T013000', '20271031T040000', '20270701T090000'] as $nth => $at) {
            $second .= "BEGIN:VTODO\r\nUID:turn-{$nth}\r\nSUMMARY:Turn {$nth}\r\nDUE;TZID=Custom/Somewhere:{$at}\r\nEND:VTODO\r\n";
        }
        $file = self::calendar(self::ZONES.$todos).self::calendar(self::ZONES.$second);
        $theirs = array_column($this->read('todos', $file), 'due', 'uid');
        $ours = array_column($this->as('lena.abara', 'POST', 'tasks/calendar', ['text' => $file, 'onlyRead' => true])->assertOk()->json(),
            'dueAt', 'title');
        self::assertCount(125, $theirs);
        foreach ($theirs as $uid => $due) {
            [$kind, $nth] = explode('-', $uid);
            self::assertSame(gmdate('Y-m-d\TH:i:s\Z', $due), $ours[$kind === 'todo' ? "Nr {$nth}" : "Turn {$nth}"], $uid);
        }
        self::assertSame('2027-07-01T07:00:00Z', $ours['Turn 4']);
        // The night is an hour short: a day later is at the same time, 24 hours later at one more.
        $long = fn (string $length): string => "BEGIN:VTODO\r\nUID:l-{$length}\r\nSUMMARY:{$length}\r\n"
            ."DTSTART;TZID=Custom/Somewhere:20270327T090000\r\nDURATION:{$length}\r\nEND:VTODO\r\n";
        $file = self::calendar(self::ZONES.$long('P1D').$long('PT24H').$long('P1DT1H'));
        $read = $this->as('lena.abara', 'POST', 'tasks/calendar', ['text' => $file, 'onlyRead' => true])->assertOk()->json();
        self::assertSame(['2027-03-28T07:00:00Z', '2027-03-28T08:00:00Z', '2027-03-28T08:00:00Z'], array_column($read, 'dueAt'));
    }

    public function test_what_of_a_to_do_is_not_taken_in_is_said(): void
    {
        $todo = static fn (string ...$lines): string => implode("\r\n", ['BEGIN:VTODO', ...$lines, "END:VTODO\r\n"]);
        $file = self::calendar($todo('UID:1', 'SUMMARY:Off', 'STATUS:CANCELLED', 'DUE:20261201T090000Z')
            .$todo('UID:2', 'SUMMARY:Weekly', 'RRULE:FREQ=WEEKLY', 'DUE:20261201T090000Z')
            .$todo('UID:3', 'SUMMARY:Nowhere', 'DUE;TZID=Middle/Earth:20261201T090000'));
        $read = $this->as('lena.abara', 'POST', 'tasks/calendar', ['text' => $file, 'onlyRead' => true])->assertOk()->json();
        self::assertSame(['left', 'given', 'given'], array_column($read, 'what'));
        self::assertSame([['It is cancelled.'], ['It comes again; this one time is taken in.']], [$read[0]['said'], $read[1]['said']]);
        self::assertStringContainsString('‘Middle/Earth’', $read[2]['said'][0]);
        self::assertSame('2026-12-01T08:00:00Z', $read[2]['dueAt'], 'by the clock of the company');
        $ticket = $this->ticket()['record']['id'];
        $this->as('lena.abara', 'POST', 'tasks/calendar', ['text' => $file, 'recordType' => 'ticket', 'recordId' => $ticket])->assertOk();
        self::assertSame(2, DB::table('tasks')->count());
    }

    public function test_holidays_are_the_days_of_another_program(): void
    {
        $event = static fn (string ...$lines): string => implode("\r\n", ['BEGIN:VEVENT', ...$lines, "END:VEVENT\r\n"]);
        $file = self::calendar($event('UID:may', 'DTSTART;VALUE=DATE:20200501', 'RRULE:FREQ=YEARLY;COUNT=12', 'SUMMARY:First of May')
            .$event('UID:thu', 'DTSTART;VALUE=DATE:20261126', 'RRULE:FREQ=YEARLY;BYMONTH=11;BYDAY=4TH;UNTIL=20301231',
                'SUMMARY:Fourth Thursday')
            .$event('UID:bridge', 'DTSTART;VALUE=DATE:20261224', 'DURATION:P3D', 'SUMMARY:Winter days')
            .$event('UID:but', 'DTSTART;VALUE=DATE:20270101', 'RRULE:FREQ=YEARLY;COUNT=4', 'EXDATE;VALUE=DATE:20280101', 'SUMMARY:New Year')
            .$event('UID:moved', 'DTSTART;VALUE=DATE:20270310', 'RRULE:FREQ=YEARLY;COUNT=3', 'SUMMARY:Founding')
            .$event('UID:moved', 'RECURRENCE-ID;VALUE=DATE:20280310', 'DTSTART;VALUE=DATE:20280313', 'SUMMARY:Founding, moved')
            .$event('UID:off', 'DTSTART;VALUE=DATE:20270404', 'STATUS:CANCELLED', 'SUMMARY:Never')
            .$event('UID:plain', 'DTSTART;VALUE=DATE:20271001', 'DTEND;VALUE=DATE:20271004', 'SUMMARY:Harvest'))
            .self::calendar($event('UID:other', 'DTSTART;VALUE=DATE:20271225', 'SUMMARY:In the second'));
        $theirs = $this->read('days', $file);
        ksort($theirs);
        [$ours, $said] = Holidays::of($file, new \DateTimeImmutable('2026-12-01'));
        self::assertSame($theirs, $ours);
        self::assertSame(['“Never” is cancelled, and left out.'], $said);
        [$fair] = Holidays::of(self::calendar($event('UID:a', 'DTSTART;VALUE=DATE:20270601', 'RDATE;VALUE=DATE:20270702', 'SUMMARY:Fair')),
            new \DateTimeImmutable('2026-12-01'));
        self::assertSame(['2027-06-01', '2027-07-02'], array_keys($fair), 'the start is the first of them (RFC 5545, 3.8.5.2)');
        [$ever, $told] = Holidays::of(self::calendar($event('UID:x', 'DTSTART;VALUE=DATE:20200501', 'RRULE:FREQ=YEARLY', 'SUMMARY:May')),
            new \DateTimeImmutable('2026-12-01'));
        self::assertSame([17, '2036-05-01', ['“May” comes again for ever; it is taken in until 2036.']], [
            count($ever), array_key_last($ever), $told,
        ]);
        $read = $this->as('ines.okafor', 'POST', 'calendars/holidays', ['text' => $file])->assertOk()->json();
        self::assertSame([count($theirs), $said], [count($read['holidays']), $read['said']]);
    }

    public function test_the_calendar_of_tasks_is_read_and_changes_only_where_something_has_changed(): void
    {
        $ticket = $this->ticket()['record']['id'];
        $id = $this->as('lena.abara', 'POST', 'tasks', [
            'title' => 'Ring, "Marit"; really', 'notes' => "Two\nlines", 'recordType' => 'ticket', 'recordId' => $ticket,
            'dueAt' => '2026-11-30T09:00:00Z',
        ])->assertCreated()->json('id');
        $path = (string) parse_url((string) $this->as('lena.abara', 'POST', 'feed')->json('url'), PHP_URL_PATH);
        $first = $this->get($path)->assertOk();
        [$todo, $event] = $this->read('feed', (string) $first->getContent());
        $wanted = ['vtodo', "task-{$id}@127.0.0.1", 'Ring, "Marit"; really', strtotime('2026-11-30T09:00:00Z')];
        self::assertSame($wanted, [$todo['kind'], preg_replace('/@.*/', '@127.0.0.1', $todo['uid']), $todo['summary'], $todo['due']]);
        self::assertSame(['vevent', url("/records/ticket/{$ticket}")], [$event['kind'], $event['url']]);
        $this->clockAt('2026-11-25T12:00:00Z');
        self::assertSame($first->getContent(), $this->get($path)->getContent(), 'what is as it was looks so');
        $this->get($path, ['If-None-Match' => (string) $first->headers->get('ETag')])->assertStatus(304);
        $this->as('lena.abara', 'PATCH', 'tasks', ['ids' => [$id], 'dueAt' => '2026-12-01T09:00:00Z'])->assertSuccessful();
        self::assertSame(strtotime('2026-11-25T12:00:00Z'), $this->read('feed', (string) $this->get($path)->getContent())[0]['stamp']);
    }

    public function test_files_of_records_are_read_as_they_were_written_and_come_back(): void
    {
        $cells = ['+49 30 5550 0199', '+4930', '-5', '-12.50', '=1+1', "=cmd|'/c calc'!A1", '@SUM(A1)', '＝1+1', "\t=1", "'=x", "'tis",
            'a"b',
            "two\nlines", 'a,b;c', 'ß🌿', '', ' x '];
        $name = fn (int $nth): string => "Customer {$nth}";
        foreach ($cells as $nth => $cell) {
            $this->created('customer', ['name' => $name($nth), 'website' => '', 'notes' => $cell]);
        }
        $file = $this->as('ines.okafor', 'GET', 'records/customer/file?columns=name,notes')->assertOk()->streamedContent();
        $read = $this->read('csv', ltrim($file, "\u{FEFF}"));
        self::assertSame([[], ','], [$read['errors'], $read['delimiter']]);
        $theirs = array_column(array_slice($read['rows'], 1), 1, 0);
        foreach ($cells as $nth => $cell) {
            $shown = $theirs[$name($nth)];
            self::assertSame(trim($cell), trim(CsvLine::read($shown)), $cell);
            self::assertDoesNotMatchRegularExpression('/^[=@＝\t]/u', $shown, 'no table program reckons with it');
        }
        self::assertSame('+49 30 5550 0199', $theirs[$name(0)], 'a number of a telephone is left alone');
    }

    public function test_letters_arrive_as_they_were_meant(): void
    {
        $this->inForce([
            'name' => 'Thanks', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'once_per_record'], 'lines' => [
                ['kind' => 'send_message', 'to' => [['kind' => 'field', 'path' => 'contact']], 'subject' => 'Grüße & <Dank>',
                    'body' => '<p>Thank you for <strong>{subject}</strong>.</p><ul><li>One</li><li>Two</li></ul>'],
            ],
        ]);
        $ticket = $this->written();
        $letter = StoredMessage::query()->where('record_id', $ticket['id'])->firstOrFail();
        $mail = $this->read('eml', $this->delivered($letter->id));
        self::assertSame(['Grüße & <Dank>', '2026-11-24T08:40:00.000Z', 'marit@brine.example'], [
            $mail['subject'], $mail['date'], $mail['to'][0]['address'],
        ]);
        self::assertSame('Auto-Submitted: auto-generated', $mail['headers']['auto-submitted']);
        self::assertSame('Content-Language: en', $mail['headers']['content-language']);
        self::assertMatchesRegularExpression('#<html lang="en">.*<title>Grüße &amp; &lt;Dank&gt;</title>.*name="viewport"#s',
            $mail['html']);
        self::assertStringContainsString("- One\n- Two", $mail['text']);
    }

    public function test_a_card_is_read(): void
    {
        $contact = $this->created('contact', [
            'name' => 'Márit; Solheim, Dr.', 'customer' => $this->customer('Brine & Barrow; Hotel')['id'], 'email' => 'marit@brine.example',
        ])['record'];
        $card = $this->read('card', (string) $this->as('bram.castellan', 'GET', "records/contact/{$contact['id']}/card")->getContent());
        $said = array_column($card[0][1] ?? $card[1], 3, 0);
        self::assertSame('marit@brine.example', $said['email']);
        self::assertSame(url("/records/contact/{$contact['id']}"), $said['uid']);
        self::assertStringContainsString('Solheim', (string) $said['fn']);
    }

    public function test_the_description_of_the_api_is_one(): void
    {
        self::assertSame(['valid' => true], $this->read('openapi', (string) file_get_contents(base_path('docs/openapi.json'))));
        $document = json_decode((string) file_get_contents(base_path('docs/openapi.json')), true);
        self::assertSame([['token' => []], ['session' => []]], $document['security']);
        self::assertSame([], $document['paths']['/api/decide/{token}']['get']['security']);
        $needed = fn (string $path): array => array_column(array_filter(
            $document['paths'][$path]['get']['parameters'], static fn (array $one): bool => $one['in'] === 'query' && $one['required'],
        ), 'name');
        self::assertSame([['date'], ['text']], [$needed('/api/lines'), $needed('/api/find')]);
    }

    public function test_files_fit_their_schemas(): void
    {
        $schemas = array_map(static fn (string $path): mixed => json_decode((string) file_get_contents($path)),
            glob(base_path('docs/schema/*.json')) ?: []);
        $documents = [];
        $this->app->make(Demo::class)->loadKept();
        foreach (glob(database_path('demo/rules/*.json')) ?: [] as $path) {
            $file = $this->demoFile(basename($path, '.json'));
            $id = $this->as('ines.okafor', 'POST', 'rules', ['file' => $file])->json('id');
            foreach ([(string) file_get_contents($path),
                (string) $this->as('ines.okafor', 'GET', "rules/{$id}/file")->getContent()] as $text) {
                $name = str_contains($path, '.draft.') ? 'rule-draft' : 'rule';
                $documents[] = [basename($path), "https://vividledger.example/schema/{$name}.schema.json", json_decode($text)];
            }
        }
        foreach ($this->app->make(Setups::class)->export() as $path => $text) {
            $document = json_decode($text);
            $documents[] = [$path, "https://vividledger.example/schema/{$document->{'$schema'}}", $document];
        }
        self::assertGreaterThan(90, count($documents));
        self::assertSame([], $this->read('schema', (string) json_encode(['schemas' => $schemas, 'documents' => $documents])));
    }

    private static function calendar(string $inside): string
    {
        return "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//x//y//EN\r\n{$inside}END:VCALENDAR\r\n";
    }

    /** @return array<mixed> what another library makes of a text */
    private function read(string $what, string $text): array
    {
        $reader = new Process(['node', 'tests/Foreign/read.mjs', $what], base_path(), input: $text, timeout: 60);
        self::assertSame(0, $reader->run(), $reader->getErrorOutput());

        return (array) json_decode($reader->getOutput(), true, 512, JSON_THROW_ON_ERROR);
    }
}
