<?php

declare(strict_types=1);

namespace Tests\App\Inbound;

use App\Models\Inbound\IncomingMail;
use App\Models\Outbound\AddressMark;
use App\Models\Outbound\StoredMessage;
use App\Work\Inbound\InboundMail;
use App\Work\Inbound\OwnWords;
use App\Work\Inbound\ReplyAddress;
use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\Process\Process;
use Tests\App\Support\Delivers;
use Tests\App\Support\TimeTestCase;

/** Letters that come back, by the one door: answers, robots, bounces, loops, and mail that is meant to do harm. */
final class MailDoorTest extends TimeTestCase
{
    use Delivers;

    public function test_an_answer_lands_on_the_record_with_its_files_and_stops_the_chase(): void
    {
        [$ticket, $message] = $this->chased();
        $letter = $this->delivered($message->id);
        self::assertStringContainsString('Reply-To: '.ReplyAddress::of($message), $letter);
        $mail = $this->mail(ReplyAddress::of($message), "Thank you, it is fine.\n\nOn Tue, Larkmoss wrote:\n> Hello\n\n-- \nMarit", [
            'Content-Type' => 'multipart/mixed; boundary="b"',
        ], "--b\r\nContent-Type: text/plain; charset=iso-8859-1\r\nContent-Transfer-Encoding: quoted-printable\r\n\r\n"
            ."Danke sch=F6n, alles gut.\r\n> Hello\r\n-- \r\nMarit\r\n--b\r\nContent-Type: text/plain; name=\"note.txt\"\r\n"
            ."Content-Disposition: attachment; filename=\"note.txt\"\r\n\r\nas agreed\r\n--b--\r\n");
        self::assertSame('reply', $this->take($mail));
        self::assertSame('reply', $this->take($mail), 'it comes once more');
        self::assertSame(1, IncomingMail::query()->count());
        $reply = DB::table('entries')->where('kind', 'reply')->where('record_id', $ticket)->get();
        self::assertCount(1, $reply);
        $data = json_decode($reply[0]->data, true);
        self::assertSame(['Danke schön, alles gut.', 'Marit Solheim <marit@brine.example>'], [$data['text'], $data['from']]);
        self::assertSame('note.txt', DB::table('files')->where('record_id', $ticket)->value('name'));
        foreach ($this->lines($ticket) as $line) {
            self::assertStringNotContainsString('2026', $line, 'nothing more is pencilled in');
        }
    }

    public function test_it_is_known_by_what_it_answers_and_by_its_sender(): void
    {
        [$ticket, $message] = $this->chased();
        $id = "{$message->key}@larkmoss.example";
        $traced = $this->mail('office@larkmoss.example', 'By its id', ['References' => "<x@y.example> <{$id}>"]);
        self::assertSame('reply', $this->take($traced));
        self::assertSame('reply', $this->take($this->mail('office@larkmoss.example', 'By its sender')));
        self::assertSame('unknown', $this->take($this->mail('office@larkmoss.example', 'Hello', ['From' => 'stranger@else.example'])));
        $forged = str_replace('-', '-0', ReplyAddress::of($message));
        self::assertSame('unknown', $this->take($this->mail($forged, 'x', ['From' => 'stranger@else.example'])));
        self::assertSame(2, DB::table('entries')->where('kind', 'reply')->where('record_id', $ticket)->count());
    }

    public function test_switched_off_the_mail_room_is_not_there_and_the_door_still_is(): void
    {
        [, $message] = $this->chased();
        self::assertTrue($this->as('ines.okafor', 'GET', 'session')->json('hasMailRoom'));
        config(['ledger.mail.room' => false]);
        self::assertFalse($this->as('ines.okafor', 'GET', 'session')->json('hasMailRoom'));
        $this->as('ines.okafor', 'GET', 'mail-room')->assertNotFound();
        $mail = $this->mail(ReplyAddress::of($message), 'By post');
        $this->call('POST', '/stand-in/mail', content: $mail)->assertNotFound();
        $this->call('POST', '/mail/'.str_repeat('0', 40), content: $mail)->assertUnauthorized();
        $this->call('POST', '/mail/'.InboundMail::sign(), content: $mail)->assertAccepted();
    }

    public function test_robots_are_told_apart_and_two_of_them_do_not_talk_for_ever(): void
    {
        [$ticket, $message] = $this->chased();
        $to = ReplyAddress::of($message);
        foreach ([['Auto-Submitted' => 'auto-replied'], ['Precedence' => 'bulk'], ['From' => 'ledger+1@larkmoss.example']] as $robot) {
            self::assertSame('auto', $this->take($this->mail($to, 'I am away', $robot)));
        }
        $kinds = [];
        for ($count = 0; $count < 30; $count++) {
            $kinds[] = $this->take($this->mail($to, "Thank you {$count}", ['From' => 'bot@else.example']));
        }
        self::assertSame(['reply' => 20, 'loop' => 10], array_count_values($kinds));
        self::assertSame(20, DB::table('entries')->where('kind', 'reply')->where('record_id', $ticket)->count());
        self::assertStringContainsString('two robots may be talking', json_encode($this->as(
            'ines.okafor', 'GET', "records/ticket/{$ticket}/account?limit=50",
        )->json('entries')) ?: '');
    }

    public function test_a_bounce_marks_the_address_and_no_more_letters_go_there(): void
    {
        [$ticket, $message] = $this->chased();
        self::assertSame('bounce', $this->take(self::bounce($message, '4.2.2', 'delayed')));
        self::assertSame([], AddressMark::among(['marit@brine.example']), 'tomorrow it may go through');
        self::assertSame('bounce', $this->take(self::bounce($message, '5.1.1', 'no such user')));
        self::assertSame(['marit@brine.example' => ['bounces']], AddressMark::among(['Marit@brine.example']));
        $this->passTo('2026-11-28T09:00:00Z');
        self::assertSame(['waiting', 'cancelled'], self::statuses($ticket));
        $kinds = DB::table('entries')->where('record_id', $ticket)->pluck('kind')->all();
        self::assertContains('bounced', $kinds);
        self::assertContains('mail_stopped', $kinds);
    }

    public function test_a_report_is_believed_about_letters_that_went_there_and_no_other(): void
    {
        [, $message] = $this->chased();
        $forged = [
            'without a letter' => str_replace($message->key, str_repeat('0', 40), self::bounce($message, '5.1.1', 'x')),
            'of somebody else' => str_replace('rfc822; marit@brine.example', 'rfc822; bram.castellan@larkmoss.example',
                self::bounce($message, '5.1.2', 'x')),
            'of nothing' => str_replace("Message-ID: <{$message->key}@larkmoss.example>", 'X-Nothing: 1',
                self::bounce($message, '5.1.3', 'x')),
        ];
        foreach ($forged as $which => $mail) {
            self::assertSame('bounce', $this->take($mail), $which);
            self::assertSame(0, DB::table('address_marks')->count(), $which);
        }
        self::assertSame(0, DB::table('entries')->where('kind', 'bounced')->count());
        // Nor can an id be made of what everybody sees.
        self::assertNotSame(substr(hash('sha256', "message:{$message->entry_id}:0"), 0, 40), $message->key);
    }

    public function test_one_letter_is_not_answered_by_everybody(): void
    {
        [$ticket, $message] = $this->chased();
        $kinds = array_map(fn (int $nth): string => $this->take($this->mail(ReplyAddress::of($message), "Answer {$nth}", [
            'From' => "somebody{$nth}@else.example",
        ])), range(1, 40));
        self::assertSame(['reply' => 20, 'loop' => 20], array_count_values($kinds));
        self::assertSame(20, DB::table('entries')->where('kind', 'reply')->where('record_id', $ticket)->count());
    }

    public function test_whoever_wants_no_more_chases_says_so_with_one_press(): void
    {
        [$ticket, $message] = $this->chased();
        $letter = $this->delivered($message->id);
        self::assertStringContainsString('List-Unsubscribe-Post: List-Unsubscribe=One-Click', $letter);
        $path = ReplyAddress::unsubscribe('marit@brine.example');
        self::assertStringContainsString($path, str_replace(["\r\n ", "=\r\n"], '', $letter));
        $this->get($path)->assertOk()->assertSee('No more reminders?');
        self::assertSame([], AddressMark::among(['marit@brine.example']), 'a program that follows links does no harm');
        $this->get(substr($path, 0, -1).'x')->assertStatus(404);
        $this->post($path, ['List-Unsubscribe' => 'One-Click'])->assertOk()->assertSee('gets no more reminders');
        $this->passTo('2026-11-28T09:00:00Z');
        self::assertSame(['waiting', 'cancelled'], self::statuses($ticket));
    }

    public function test_mail_that_is_broken_deep_or_huge_is_read_all_the_same(): void
    {
        [, $message] = $this->chased();
        $to = ReplyAddress::of($message);
        $deep = '';
        for ($level = 0; $level < 200; $level++) {
            $deep .= "--b{$level}\r\nContent-Type: multipart/mixed; boundary=\"b".($level + 1)."\"\r\n\r\n";
        }
        $began = hrtime(true);
        $nested = $this->mail($to, '', ['Content-Type' => 'multipart/mixed; boundary="b0"'], "{$deep}Hello\r\n");
        self::assertSame('reply', $this->take($nested));
        $quoted = "Fine.\r\n".str_repeat(str_repeat('> ', 200)."the same again\r\n", 12_000);
        self::assertGreaterThan(4_900_000, strlen($quoted));
        self::assertSame('reply', $this->take($this->mail($to, $quoted)));
        self::assertSame('Fine.', IncomingMail::query()->latest('id')->value('text'));
        $odd = ['Content-Type' => 'text/plain; charset=x-no-such', 'Subject' => '=?utf-8?B?////?='];
        $broken = $this->mail($to, "caf\xe9 \xff\xfe \x00", $odd);
        self::assertSame('reply', $this->take($broken));
        self::assertTrue(mb_check_encoding((string) IncomingMail::query()->latest('id')->value('text'), 'UTF-8'));
        self::assertLessThan(30, (hrtime(true) - $began) / 1e9, 'none of it takes for ever');
        foreach (['', "\n\n", str_repeat('x', 12_100_000)] as $bad) {
            try {
                $this->take($bad);
                self::fail('It was taken.');
            } catch (\DomainException $no) {
                self::assertNotSame('', $no->getMessage());
            }
        }
    }

    public function test_it_comes_in_by_a_pipe_and_by_a_signed_address(): void
    {
        [$ticket, $message] = $this->chased();
        $mail = $this->mail(ReplyAddress::of($message), 'By the address');
        $this->call('POST', '/mail/'.str_repeat('0', 40), content: $mail)->assertStatus(401);
        $this->call('POST', '/mail/'.InboundMail::sign(), content: $mail)->assertStatus(202)->assertJsonPath('kind', 'reply');
        self::assertSame(1, DB::table('entries')->where('kind', 'reply')->where('record_id', $ticket)->count());
        $pipe = new Process([PHP_BINARY, 'artisan', 'ledger:mail'], base_path());
        $pipe->setInput('');
        self::assertSame(65, $pipe->run(), 'a mail server understands that it need not come again');
    }

    /** @return iterable<string, array{string, string}> */
    public static function texts(): iterable
    {
        yield 'quoted below' => ["Yes\n\nOn Mon, 3 Nov 2026 at 10:00, Larkmoss <a@b.example> wrote:\n> Hello", 'Yes'];
        yield 'broken over two lines' => [
            "Yes\n\nOn Mon, 3 Nov 2026 at 10:00, Larkmoss of the long name\n<a@b.example> wrote:\n> Hello", 'Yes',
        ];
        yield 'German' => ["Ja\n\nAm 03.11.2026 um 10:00 schrieb Larkmoss:\n> Hallo", 'Ja'];
        yield 'headers' => ["Sure\n\nFrom: Larkmoss\nSent: Monday\nTo: Marit\nHello", 'Sure'];
        yield 'between what is quoted' => ["> When?\nTomorrow\n> Where?\nHere", "Tomorrow\nHere"];
        yield 'a signature' => ["Done\n-- \nMarit\nBrine", 'Done'];
        yield 'nothing of their own' => ["> Hello\n> again", ''];
        yield 'a sentence that begins alike' => ["On Monday we wrote to you.\nSo what?", "On Monday we wrote to you.\nSo what?"];
    }

    #[DataProvider('texts')]
    public function test_their_own_words(string $text, string $own): void
    {
        self::assertSame($own, OwnWords::of($text));
    }

    /** @return list<string> of the messages of a ticket, in order */
    private static function statuses(int $ticket): array
    {
        return DB::table('messages')->where('record_id', $ticket)->orderBy('id')->pluck('status')->all();
    }

    /** @return array{int, StoredMessage} a ticket whose contact was written to, and the first letter */
    private function chased(): array
    {
        $this->inForce(self::CHASE);
        $ticket = $this->written(['status' => 'waiting'])['id'];

        return [$ticket, StoredMessage::query()->where('record_id', $ticket)->orderBy('id')->firstOrFail()];
    }

    private function take(string $raw): string
    {
        return $this->app->make(InboundMail::class)->take($raw)->kind->value;
    }

    /** @param  array<string, string>  $headers */
    private function mail(string $to, string $text, array $headers = [], ?string $body = null): string
    {
        $headers += [
            'From' => 'Marit Solheim <marit@brine.example>', 'To' => $to, 'Subject' => 'Re: First',
            'Message-ID' => '<'.bin2hex(random_bytes(8)).'@brine.example>', 'MIME-Version' => '1.0',
        ];
        $head = '';
        foreach ($headers as $name => $value) {
            $head .= "{$name}: {$value}\r\n";
        }

        return "{$head}\r\n".($body ?? str_replace("\n", "\r\n", str_replace("\r\n", "\n", $text)));
    }

    private static function bounce(StoredMessage $message, string $status, string $why): string
    {
        return implode("\r\n", [
            'From: MAILER-DAEMON@brine.example', 'To: ledger@larkmoss.example', 'Subject: Undelivered',
            "Message-ID: <{$status}@brine.example>", 'Auto-Submitted: auto-replied', 'MIME-Version: 1.0',
            'Content-Type: multipart/report; report-type=delivery-status; boundary="r"',
            '', '--r', 'Content-Type: text/plain', '', 'It could not be delivered.', '--r', 'Content-Type: message/delivery-status', '',
            'Reporting-MTA: dns; mx.brine.example', '', 'Final-Recipient: rfc822; marit@brine.example', 'Action: failed',
            "Status: {$status}", "Diagnostic-Code: smtp; 550 {$why}", '', '--r', 'Content-Type: text/rfc822-headers', '',
            "Message-ID: <{$message->key}@larkmoss.example>", 'Subject: First', '', '--r--', '',
        ]);
    }
}
