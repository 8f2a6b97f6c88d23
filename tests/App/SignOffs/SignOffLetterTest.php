<?php

declare(strict_types=1);

namespace Tests\App\SignOffs;

use App\Models\Outbound\StoredMessage;
use App\StandIn\Eml;
use App\Store\Outbound\LetterLinks;
use App\Store\SignOffs\SignOffLink;
use App\Store\SignOffs\SignOffReplies;
use App\Work\Inbound\AnswerMail;
use App\Work\Inbound\InboundMail;
use App\Work\Outbound\OutboxRelay;
use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\App\Support\SignOffTestCase;
use VividLedger\SignOff\Answer;

/** Deciding from the letter: by its link, which takes a press and works once, and by an answer whose first word is understood. */
final class SignOffLetterTest extends SignOffTestCase
{
    private const DAYS = ['within' => ['amount' => 3, 'unit' => 'day']];

    public function test_the_letter_shows_the_case_and_its_link_decides_once(): void
    {
        $this->inForce(self::asking([['who' => self::CLEA] + self::DAYS]));
        $quote = $this->quote();
        $letter = $this->letter('clea.harrow');
        foreach (['A discount of 20.0 %', 'Jonas Pike asks for it', '<td>20.0 %</td>', 'Look at it and decide'] as $said) {
            self::assertStringContainsString($said, $letter->html);
        }
        self::assertStringContainsString('A discount of 20.0 %', $letter->text);
        $token = $this->token($letter);
        // A program that opens links decides nothing, however often it looks.
        foreach ([1, 2, 3] as $look) {
            $this->open($token)->assertOk()->assertJsonPath('isOpen', true)->assertJsonPath('why', 'A discount of 20.0 %');
        }
        self::assertSame('waiting', $this->latest()->status->value);
        $this->assertRefused($this->decide($token, 'no'), 422, 'no_comment');
        $this->assertRefused($this->decide($token, 'perhaps'), 422, 'invalid_request');
        $this->decide($token, 'yes', 'Fine')->assertOk()->assertJsonPath('isOpen', false)->assertJsonPath('said', 'You have agreed.');
        $this->settle();
        self::assertSame(['Signed off by Clea Harrow'], $this->comments($quote['id']));
        self::assertStringContainsString('Clea Harrow agreed: “Fine”', $this->told($quote['id']));
        $this->assertRefused($this->decide($token, 'no', 'Changed my mind'), 409, 'ended');
        $this->open($token)->assertOk()->assertJsonPath('said', 'You have agreed.');
        self::assertSame(1, DB::table('entries')->where('kind', 'sign_off')->count(), 'one outcome');
    }

    public function test_a_link_that_is_forged_expired_withdrawn_or_replaced_says_so(): void
    {
        $this->inForce(self::asking([['who' => self::CLEA, 'late' => 'again'] + self::DAYS]));
        $this->quote();
        $token = $this->token($this->letter('clea.harrow'));
        foreach ([substr($token, 0, -1).'0', '1-1-99999999999-'.str_repeat('a', 32), 'x', "{$token}0"] as $forged) {
            if ($forged !== $token) {
                $this->assertRefused($this->open($forged), 404, 'not_found');
                $this->assertRefused($this->decide($forged, 'yes'), 404, 'not_found');
            }
        }
        $this->passTo('2026-11-28T00:00:00Z');
        $this->assertRefused($this->decide($token, 'yes'), 409, 'link_used');
        $again = $this->token($this->letter('clea.harrow'));
        $this->as('jonas.pike', 'POST', "sign-offs/{$this->latest()->id}/withdraw")->assertOk();
        $this->assertRefused($this->decide($again, 'yes'), 409, 'ended');
        $this->open($again)->assertOk()->assertJsonPath('said', 'It is withdrawn, and you need not answer any more.');
        $this->clockAt('2027-06-01T00:00:00Z');
        $this->assertRefused($this->open($again), 409, 'link_expired');
    }

    public function test_an_answer_by_mail_is_understood_by_its_first_word(): void
    {
        $this->inForce(self::asking([['who' => self::CLEA] + self::DAYS]));
        $quotes = [$this->quote(), $this->quote(['subject' => 'Moss'])];
        $letters = [$this->letter('clea.harrow', $quotes[0]['id']), $this->letter('clea.harrow', $quotes[1]['id'])];
        $post = fn (StoredMessage $letter, string $text): TestResponse => $this->call('POST', '/stand-in/mail', server: [
            'HTTP_AUTHORIZATION' => 'Bearer '.OutboxRelay::gatewayToken(), 'CONTENT_TYPE' => 'message/rfc822',
        ], content: self::mail((string) LetterLinks::deciding($letter), 'clea.harrow@larkmoss.example', $text));
        $this->call('POST', '/stand-in/mail', content: 'x')->assertStatus(401);
        self::assertFalse($post($letters[0], 'Let me think about it')->json('taken'));
        self::assertFalse($post($letters[0], 'No.')->json('taken'), 'a no without its reason');
        self::assertSame('waiting', DB::table('sign_offs')->where('record_id', $quotes[0]['id'])->value('status'));
        $quoted = "On Tue, Vivid Ledger <ledger@larkmoss.example> wrote:\n> yes";
        $post($letters[0], "Declined - the margin is gone.\n\n{$quoted}")->assertStatus(202);
        $this->settle();
        self::assertSame(['Declined: Clea Harrow: the margin is gone.'], $this->comments($quotes[0]['id']));
        self::assertFalse($post($letters[0], 'yes')->json('taken'), 'it is used up');
        $post($letters[1], 'Approved')->assertStatus(202);
        $this->settle();
        self::assertSame(['Signed off by Clea Harrow'], $this->comments($quotes[1]['id']));
        $strange = self::mail('ledger+1-1-1-'.str_repeat('0', 32).'@larkmoss.example', 'a@b.example', 'yes');
        self::assertFalse($this->call('POST', '/stand-in/mail', server: ['HTTP_AUTHORIZATION' => 'Bearer '.OutboxRelay::gatewayToken()],
            content: $strange)->json('taken'));
    }

    public function test_an_answer_that_cannot_be_taken_is_answered_by_a_letter_that_asks(): void
    {
        $this->inForce(self::asking([['who' => self::CLEA] + self::DAYS]));
        $quote = $this->quote();
        $clea = $this->person('clea.harrow');
        $clea->forceFill(['language' => 'de'])->save();
        $door = $this->app->make(InboundMail::class);
        $answer = fn (string $text): string => $door->take('Message-ID: <'.bin2hex(random_bytes(6))."@x.example>\r\n"
            .self::mail((string) LetterLinks::deciding($this->letter('clea.harrow')), 'clea.harrow@larkmoss.example', $text))->kind->value;
        self::assertSame('refused', $answer('No problem, approved'));
        $letter = $this->letter('clea.harrow');
        self::assertStringStartsWith('Ihre Antwort wurde nicht übernommen', $letter->subject);
        self::assertStringContainsString('No problem, approved', $letter->html);
        self::assertStringNotContainsString(SignOffLink::token((int) $letter->seat_id, 1, $letter->created_at),
            $letter->html.$letter->text);
        self::assertSame('waiting', $this->latest()->status->value);
        self::assertSame('refused', $answer('no'), 'a no without its reason');
        self::assertStringContainsString('Nein', $this->letter('clea.harrow')->text);

        // Its link decides; what comes afterwards is told that it is too late, without another link.
        $this->decide($this->token($this->letter('clea.harrow')), 'yes')->assertOk();
        self::assertSame('refused', $answer('no, after all'));
        self::assertStringNotContainsString('/decide/', $this->letter('clea.harrow')->html);
        // Whoever goes on without reading is not written to for ever.
        foreach (range(1, 8) as $time) {
            $answer("again {$time}");
        }
        self::assertSame(6, StoredMessage::query()->where('channel', 'email')->where('record_id', $quote['id'])->count());
        self::assertSame('refused', $door->take(self::mail('ledger+1-1-1-'.str_repeat('0', 32).'@larkmoss.example', 'a@b.example',
            'yes'))->kind->value);
    }

    private static function mail(string $to, string $from, string $text): string
    {
        return AnswerMail::of(Eml::read("Reply-To: {$to}\r\nSubject: Sign-off\r\n\r\n"), $from, $text);
    }

    /** @return iterable<string, array{string, ?Answer, string}> */
    public static function answers(): iterable
    {
        yield 'a word' => ['yes', Answer::Yes, ''];
        yield 'with a stop and more' => ["OK, go ahead\nwith it", Answer::Yes, "go ahead\nwith it"];
        yield 'in quotes' => ['“No” – too dear', Answer::No, 'too dear'];
        yield 'another language' => ['Nein, zu viel', Answer::No, 'zu viel'];
        yield 'what is quoted is not said' => ["> yes\n> please", null, ''];
        yield 'a signature' => ["Approved\n--\nClea", Answer::Yes, ''];
        yield 'in capitals, over lines' => ["JA\n\nGeht klar", Answer::Yes, 'Geht klar'];
        yield 'approved in German' => ['Genehmigt. Danke!', Answer::Yes, 'Danke!'];
        yield 'declined in German' => ['Abgelehnt: Rabatt zu hoch', Answer::No, 'Rabatt zu hoch'];
        $doubts = [
            'not at the beginning' => 'I would say yes', 'a word that only begins so' => 'Yesterday I thought so', 'nothing' => '',
            'a no that is none' => 'No objections', 'a no that is a yes' => 'No problem, approved', 'both' => 'No, approved',
            'a yes that hangs on something' => 'Yes, if it is cheaper', 'a yes that is none' => 'OK, but not like this',
            'a question' => 'Yes?', 'a sentence' => 'No idea what this is', 'kein Nein' => 'Keine Einwände',
            'nicht' => 'Nicht einverstanden',
            'ja, wenn' => 'Ja, aber erst nächste Woche', 'nein, gern' => 'Nein, kein Problem', 'two words' => 'Yes no',
            'ok' => 'Ok I will look at it',
        ];
        foreach ($doubts as $name => $text) {
            yield $name => [$text, null, ''];
        }
    }

    #[DataProvider('answers')]
    public function test_what_an_answer_says(string $text, ?Answer $answer, string $comment): void
    {
        self::assertSame([$answer, $comment], SignOffReplies::read($text));
    }

    private function letter(string $handle, ?int $record = null): StoredMessage
    {
        return StoredMessage::query()->where('channel', 'email')->whereNotNull('sign_off_id')
            ->where('recipients', 'like', "%{$this->person($handle)->email}%")
            ->when($record !== null, static fn ($letters) => $letters->where('record_id', $record))->latest('id')->firstOrFail();
    }

    private function token(StoredMessage $letter): string
    {
        self::assertStringContainsString(SignOffLink::MARK, $letter->html, 'what is kept lets nobody act');
        self::assertNull($letter->recipients['replyTo']);
        self::assertSame(1, preg_match('#href="/decide/([a-f0-9-]+)"#', LetterLinks::filled($letter, $letter->html), $found));

        return $found[1];
    }

    private function open(string $token): TestResponse
    {
        return $this->json('GET', "/api/decide/{$token}");
    }

    private function decide(string $token, string $answer, string $comment = ''): TestResponse
    {
        return $this->json('POST', "/api/decide/{$token}", ['answer' => $answer, 'comment' => $comment]);
    }
}
