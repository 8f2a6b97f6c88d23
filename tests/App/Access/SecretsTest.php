<?php

declare(strict_types=1);

namespace Tests\App\Access;

use App\Models\Outbound\LinkKind;
use App\Models\Outbound\StoredMessage;
use App\Models\Slips\SlipTurnRow;
use App\Store\Access\PersonLinks;
use App\Store\Outbound\LetterLinks;
use App\Store\Slips\SlipLink;
use App\Work\Inbound\InboundMail;
use App\Work\Inbound\ReplyAddress;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Log;
use Tests\App\Slips\SlipTest;
use Tests\App\Support\Delivers;
use Tests\App\Support\SignOffTestCase;

/**
 * What lets somebody act (the link of a sign-off, of a slip, an invitation, another password, a calendar, a token, secrets of hooks) is
 * told to one person. It stands in no row, no log, and no answer to anybody else, also after it was used, refused, quoted, or broke.
 */
final class SecretsTest extends SignOffTestCase
{
    use Delivers;

    private string $log = '';

    protected function setUp(): void
    {
        parent::setUp();
        $this->log = sys_get_temp_dir().'/vivid-ledger-secrets-'.getmypid().'-'.bin2hex(random_bytes(4)).'.log';
        config(['logging.default' => 'single', 'logging.channels.single' => [
            'driver' => 'single', 'path' => $this->log, 'level' => 'debug',
        ], 'session.driver' => 'database']);
        Log::forgetChannel('single');
    }

    protected function tearDown(): void
    {
        @unlink($this->log);
        parent::tearDown();
    }

    public function test_no_secret_stands_where_somebody_else_can_read_it(): void
    {
        $secrets = $this->given();
        $this->used($secrets);
        self::assertFileExists($this->log, 'something has been logged');
        foreach ($this->places() as $place => $text) {
            foreach ($secrets as $name => $secret) {
                self::assertStringNotContainsString($secret, $text, "{$name} in {$place}");
                self::assertStringNotContainsString(base64_encode($secret), $text, "{$name} in {$place}");
            }
            self::assertSame(LetterLinks::masked($text), $text, "some address that lets act in {$place}");
        }
    }

    /** @return array<string, string> each as it is told to the one it is for */
    private function given(): array
    {
        $this->inForce(self::asking([['who' => self::CLEA, 'within' => ['amount' => 3, 'unit' => 'day']]]));
        $this->quote();
        $this->inForce(SlipTest::rule());
        $customer = $this->customer();
        $partner = $this->created('partner', ['name' => 'Moor Crew', 'email' => 'moor@crews.example', 'phone' => '+49 30 5550 0199']);
        $agreement = $this->created('agreement', ['title' => 'Care', 'status' => 'running', 'customer' => $customer['id']]);
        $this->created('visit', [
            'purpose' => 'Round', 'agreement' => $agreement['record']['id'], 'status' => 'planned', 'partner' => $partner['record']['id'],
        ]);
        $this->inForce([
            'name' => 'Thanks', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'once_per_record'], 'lines' => [
                ['kind' => 'send_message', 'to' => [['kind' => 'field', 'path' => 'contact']], 'subject' => 'Thanks',
                    'body' => 'Thank you.'],
            ],
        ]);
        $this->written();
        $letter = static fn (string $column): StoredMessage => StoredMessage::query()->where('channel', 'email')->whereNotNull($column)
            ->latest('id')->firstOrFail();
        [$asking, $slip] = [$letter('seat_id'), $letter('slip_turn_id')];
        $thanks = StoredMessage::query()->where('channel', 'email')->where('subject', 'Thanks')->firstOrFail();
        $arrived = array_map(fn (StoredMessage $one): string => quoted_printable_decode(str_replace("\r\n ", '',
            $this->delivered($one->id))),
            [$asking, $slip, $thanks]);
        preg_match('#/decide/([\w-]+)#', $arrived[0], $decide);
        preg_match('#/slip/([\w-]+)#', $arrived[1], $turn);
        preg_match('#/unsubscribe/([\w.-]+)#', $arrived[2], $unsubscribe);
        preg_match('#Reply-To:.*\+(m\d+-[a-f0-9]{20})@#', $arrived[2], $reply);
        self::assertSame(SlipLink::token(SlipTurnRow::query()->latest('id')->firstOrFail()), $turn[1]);
        $ines = fn (string $method, string $path, array $body = []) => $this->as('ines.okafor', $method, $path, $body)->assertSuccessful();
        $endpoint = $ines('POST', 'endpoints', [
            'name' => 'Books', 'url' => 'https://books.example/', 'method' => 'POST', 'timeout' => 5, 'tries' => 2, 'atOnce' => 1,
            'perMinute' => 60, 'mayBeInside' => true, 'secretHeaders' => [['name' => 'Authorization', 'value' => 'Bearer opensesame7']],
            'headers' => [], 'signingSecret' => 'whsec_MfKQ9r8GKYqrTwjUPD8ILPZIo2LaLaSw',
        ]);
        self::assertStringNotContainsString('opensesame7', (string) $endpoint->getContent());
        $hook = $ines('POST', 'hooks', [
            'name' => 'Door', 'recordType' => 'customer', 'takes' => [['path' => 'n', 'field' => 'name']], 'starts' => [],
            'knownBy' => 'name', 'mayCreate' => true, 'isOpen' => true,
        ])->json('secret');
        preg_match('#/feed/([a-f0-9]+)#', (string) $ines('POST', 'feed')->json('url'), $feed);

        return [
            'the link of a sign-off' => $decide[1], 'the link of a slip' => $turn[1], 'a link against chases' => $unsubscribe[1],
            'the address for answers' => $reply[1], 'an invitation' => PersonLinks::make(LinkKind::Invite, $this->person('jonas.pike')->id),
            'a link for another password' => PersonLinks::make(LinkKind::Reset, $this->person('clea.harrow')->id),
            'the address of a calendar' => $feed[1], 'a token' => $this->person('lena.abara')->createToken('x')->plainTextToken,
            'the secret of a hook' => $hook, 'a secret header' => 'opensesame7', 'a signing secret' => 'MfKQ9r8GKYqrTwjUPD8ILPZIo2LaLaSw',
        ];
    }

    /** @param  array<string, string>  $secrets  used, refused, quoted back, and broken over */
    private function used(array $secrets): void
    {
        $this->forget();
        [$decide, $slip] = [$secrets['the link of a sign-off'], $secrets['the link of a slip']];
        $pages = ["decide/{$decide}", "slip/{$slip}", 'welcome/'.$secrets['an invitation'],
            'unsubscribe/'.$secrets['a link against chases'], "feed/{$secrets['the address of a calendar']}.ics"];
        foreach ($pages as $page) {
            $this->get("/{$page}")->assertOk();
        }
        $this->getJson("/api/decide/{$decide}")->assertOk();
        $this->postJson("/api/decide/{$decide}", ['answer' => 'no'])->assertUnprocessable();
        $this->post("/slip/{$slip}", ['answers' => ['', '', '', '', '', '']])->assertClientError();
        $this->postJson('/api/welcome/'.$secrets['an invitation'], ['password' => 'short'])->assertClientError();
        $this->withToken($secrets['a token'])->getJson('/api/session')->assertOk();
        $this->withToken('')->flushHeaders();
        // Somebody answers with all of it quoted, and forwards it.
        $quoted = 'They wrote: https://ledger.larkmoss.example/decide/'.$decide.' and https://ledger.larkmoss.example/slip/'.$slip
            .' and ledger+'.$decide.'@larkmoss.example and https://x.example/unsubscribe/'.$secrets['a link against chases']
            .' and ledger+'.$secrets['the address for answers'].'@larkmoss.example';
        $thanks = StoredMessage::query()->where('subject', 'Thanks')->firstOrFail();
        $this->app->make(InboundMail::class)->take(implode("\r\n", [
            'Message-ID: <q@brine.example>', 'From: Marit <marit@brine.example>', 'To: '.ReplyAddress::of($thanks),
            "Subject: Re: {$quoted}",
            'MIME-Version: 1.0', 'Content-Type: multipart/mixed; boundary="b"', '', '--b', 'Content-Type: text/plain', '', $quoted, '--b',
            'Content-Type: message/rfc822', 'Content-Disposition: attachment; filename="forwarded.eml"', '', "Subject: x\r\n\r\n{$quoted}",
            '--b--', '',
        ]));
        // And something breaks in the midst of it, which is logged.
        DB::listen(static function ($query): void {
            if (str_contains($query->sql, 'sign_off_seats')) {
                throw new \RuntimeException('the power went');
            }
        });
        $this->getJson("/api/decide/{$decide}")->assertStatus(500);
        DB::getEventDispatcher()?->forget(\Illuminate\Database\Events\QueryExecuted::class);
    }

    /**
     * @return array<string, string> what is kept and shown, by where; but for the letters of the stand-in, which is no part of the
     * product
     */
    private function places(): array
    {
        $places = ['the log' => (string) file_get_contents($this->log)];
        foreach (DB::select('SHOW TABLES') as $row) {
            $table = (string) array_values((array) $row)[0];
            if ($table !== 'mail_room') {
                $rows = DB::table($table)->get()->map(static fn (object $one): string => implode("\n",
                    array_map(strval(...), (array) $one)));
                $places["the table {$table}"] = $rows->implode("\n");
            }
        }
        foreach (['endpoints', 'hooks', 'people', 'tokens', 'sign-offs?box=all', 'slips?box=all', 'messages', 'ledger',
            'session'] as $asked) {
            $places["GET {$asked}"] = (string) $this->as('ines.okafor', 'GET', $asked)->assertOk()->getContent();
        }

        return $places;
    }
}
