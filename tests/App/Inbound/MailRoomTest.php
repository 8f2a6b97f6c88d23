<?php

declare(strict_types=1);

namespace Tests\App\Inbound;

use App\StandIn\Eml;
use App\StandIn\MailRoom;
use App\StandIn\SmtpServer;
use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\Mime\Address;
use Symfony\Component\Mime\Email;
use Tests\App\Support\AppTestCase;

/** The mail room that ships with the application: what it hears over SMTP, and how it reads what came. */
final class MailRoomTest extends AppTestCase
{
    /** @var list<string> */
    private array $taken = [];

    public function test_a_conversation_goes_as_the_standard_says(): void
    {
        [$server, $client] = $this->connected();
        self::assertSame('220', $this->hears($server, $client));
        foreach (['EHLO desk.example' => '250', 'MAIL FROM:<a@x.example>' => '250', 'RCPT TO:<b@y.example>' => '250',
            'DATA' => '354'] as $said => $code) {
            self::assertSame($code, $this->says($server, $client, "{$said}\r\n"), $said);
        }
        self::assertSame('250', $this->says($server, $client, "Subject: One\r\n\r\nfirst\r\n..dotted\r\n...\r\n.\r\n"));
        self::assertSame(["Subject: One\r\n\r\nfirst\r\n.dotted\r\n.."], $this->taken);

        // A second letter in the same conversation, and a change of mind.
        self::assertSame('250', $this->says($server, $client, "RSET\r\n"));
        self::assertSame('502', $this->says($server, $client, "VRFY root\r\n"));
        self::assertSame('354', $this->says($server, $client, "data\r\n"));
        self::assertSame('250', $this->says($server, $client, "Subject: Two\r\n\r\nsecond\r\n.\r\n"));
        self::assertSame('221', $this->says($server, $client, "QUIT\r\n"));
        self::assertCount(2, $this->taken);
    }

    public function test_a_letter_may_come_in_pieces_and_two_senders_at_once(): void
    {
        [$server, $one] = $this->connected();
        $two = stream_socket_client("tcp://{$server->address()}");
        self::assertNotFalse($two);
        $this->hears($server, $one);
        $this->hears($server, $two);
        self::assertSame('354', $this->says($server, $one, "DATA\r\n"));
        self::assertSame('354', $this->says($server, $two, "DATA\r\n"));
        foreach (['Subject: Pie', "ces\r\n", "\r\nhel", "lo\r\n.", "\r"] as $piece) {
            fwrite($one, $piece);
            $server->serve(0.2);
        }
        self::assertSame([], $this->taken, 'it is not whole yet');
        self::assertSame('250', $this->says($server, $two, "Subject: Other\r\n\r\nx\r\n.\r\n"));
        self::assertSame('250', $this->says($server, $one, "\n"));
        self::assertSame(["Subject: Other\r\n\r\nx", "Subject: Pieces\r\n\r\nhello"], $this->taken);
    }

    public function test_a_sender_that_hangs_up_leaves_no_half_letter(): void
    {
        [$server, $client] = $this->connected();
        $this->hears($server, $client);
        $this->says($server, $client, "DATA\r\n");
        fwrite($client, "Subject: Half\r\n\r\nhal");
        fclose($client);
        for ($count = 0; $count < 3; $count++) {
            $server->serve(0.1);
        }
        self::assertSame([], $this->taken);
    }

    public function test_an_address_in_use_is_said(): void
    {
        $server = new SmtpServer('127.0.0.1:0', static function (): void {
        });
        $this->expectExceptionMessage("The mail room cannot listen on {$server->address()}");
        new SmtpServer($server->address(), static function (): void {
        });
    }

    /** @return iterable<string, array{string, string, string, string}> raw mail, subject, text, HTML */
    public static function mails(): iterable
    {
        yield 'plain' => ["Subject: Hello\r\n\r\nOne\r\nTwo", 'Hello', "One\r\nTwo", ''];
        yield 'no body' => ['Subject: Hello', 'Hello', '', ''];
        yield 'a folded, encoded subject' => ["Subject: =?utf-8?Q?Gr=C3=BC?=\r\n =?utf-8?Q?nwand?=\r\n\r\nx", 'Grünwand', 'x', ''];
        yield 'base64' => [
            "Content-Type: text/plain; charset=utf-8\r\nContent-Transfer-Encoding: base64\r\nSubject: B\r\n\r\n"
                .base64_encode('Größe: 3 m'),
            'B', 'Größe: 3 m', '',
        ];
        yield 'quoted-printable' => [
            "Content-Type: text/plain; charset=utf-8\r\nContent-Transfer-Encoding: quoted-printable\r\nSubject: "
                ."Q\r\n\r\nGr=C3=B6=\r\n=C3=9Fe",
            'Q', 'Größe', '',
        ];
        yield 'another alphabet' => ["Content-Type: text/plain; charset=iso-8859-1\r\nSubject: L\r\n\r\nGr\xF6\xDFe", 'L', 'Größe', ''];
        yield 'an alphabet nobody knows' => ["Content-Type: text/plain; charset=x-none\r\nSubject: N\r\n\r\nplain", 'N', 'plain', ''];
        yield 'only HTML' => ["Content-Type: text/html\r\nSubject: H\r\n\r\n<p>One</p>", 'H', 'One', '<p>One</p>'];
        yield 'both' => [
            "Content-Type: multipart/alternative; boundary=\"b\"\r\nSubject: M\r\n\r\n--b\r\nContent-Type: "
                ."text/plain\r\n\r\nOne\r\n--b\r\nContent-Type: text/html\r\n\r\n<p>One</p>\r\n--b--\r\n",
            'M', 'One', '<p>One</p>',
        ];
        yield 'parts within parts' => [
            "Content-Type: multipart/mixed; boundary=a\r\nSubject: N\r\n\r\n--a\r\nContent-Type: multipart/alternative; "
                ."boundary=b\r\n\r\n--b\r\nContent-Type: text/plain\r\n\r\nIn\r\n--b\r\nContent-Type: "
                    ."text/html\r\n\r\n<p>In</p>\r\n--b--\r\n--a--\r\n",
            'N', 'In', '<p>In</p>',
        ];
        yield 'header names in any case' => ["sUBJECT: Case\n\nx", 'Case', 'x', ''];
    }

    #[DataProvider('mails')]
    public function test_a_mail_is_read(string $raw, string $subject, string $text, string $html): void
    {
        $mail = Eml::read($raw);

        self::assertSame([$subject, $text, $html], [$mail->header('Subject'), $mail->text(), $mail->html()]);
    }

    /** What a mail library writes, the mail room reads: the same words, whatever they are. */
    public function test_what_is_written_is_read(): void
    {
        foreach (['Plain', 'Grüße 🌿', str_repeat('long ', 60), "line\nline", 'Σας ж İ', '. . ..'] as $words) {
            $mail = (new Email)
                ->from(new Address('desk@larkmoss.example', 'Larkmoss Grün'))
                ->to(new Address('marit@hotel.example', 'Marit Sölheim'))
                ->subject(str_replace("\n", ' ', trim($words)))
                ->text($words)
                ->html('<p>'.htmlspecialchars($words).'</p>');
            $read = Eml::read($mail->toString());
            self::assertSame(trim($words), str_replace("\r", '', $read->text()));
            self::assertSame('<p>'.htmlspecialchars($words).'</p>', str_replace("\r", '', $read->html()));
            self::assertSame(str_replace("\n", ' ', trim($words)), $read->header('Subject'));
            self::assertSame('Marit Sölheim <marit@hotel.example>', $read->header('To'));
        }
    }

    public function test_what_was_taken_is_shown_inert_and_can_be_taken_away_as_a_file(): void
    {
        $mail = (new Email)->from('a@x.example')->to('b@y.example')->subject('<b>Hi</b>')->text('x')->html(
            '<p onclick="alert(1)">x<script>alert(1)</script></p>',
        );
        $mail->getHeaders()->addIdHeader('Message-ID', 'one@larkmoss.example');
        $room = $this->app->make(MailRoom::class);
        $room->takeMail($mail->toString());
        $room->takeMail($mail->toString());
        $room->takeText('text-1', '+49 30 5550', 'Your visit is tomorrow.');

        $shelf = $this->as('ines.okafor', 'GET', 'mail-room')->assertOk()->json();
        self::assertSame(
            [['', '+49 30 5550'], ['<b>Hi</b>', 'b@y.example']],
            array_map(static fn (array $one): array => [$one['subject'], $one['recipients']], $shelf['letters']),
            'each is there once',
        );
        self::assertSame(1, $this->as('ines.okafor', 'GET', 'mail-room?search=visit%20tomorrow')->json('total'));
        $id = (int) DB::table('mail_room')->where('kind', 'email')->value('id');
        $answer = $this->as('ines.okafor', 'GET', "mail-room/{$id}")->assertOk();
        self::assertStringNotContainsString('script', (string) $answer->json('html'));
        self::assertStringNotContainsString('onclick', (string) $answer->json('html'));
        $file = $this->as('ines.okafor', 'GET', "mail-room/{$id}/eml")->assertOk();
        self::assertStringStartsWith('message/rfc822', (string) $file->headers->get('Content-Type'));
        $this->assertRefused($this->as('ines.okafor', 'GET', 'mail-room/999999'), 404, 'not_found');
    }

    /** @return array{SmtpServer, resource} a server and somebody who has just called it */
    private function connected(): array
    {
        $server = new SmtpServer('127.0.0.1:0', function (string $raw): void {
            $this->taken[] = $raw;
        });
        $client = stream_socket_client("tcp://{$server->address()}");
        self::assertNotFalse($client);

        return [$server, $client];
    }

    /** @param  resource  $client */
    private function says(SmtpServer $server, $client, string $words): string
    {
        fwrite($client, $words);

        return $this->hears($server, $client);
    }

    /**
     * @param  resource  $client
     * @return string the code of the last line that came back
     */
    private function hears(SmtpServer $server, $client): string
    {
        stream_set_blocking($client, false);
        $heard = '';
        for ($until = microtime(true) + 10; microtime(true) < $until && preg_match('/^\d{3} [^\r]*\r\n$/m', $heard) !== 1;) {
            $server->serve(0.02);
            $heard .= (string) fread($client, 4096);
        }
        $lines = explode("\r\n", rtrim($heard));

        return substr((string) end($lines), 0, 3);
    }
}
