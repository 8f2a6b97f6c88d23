<?php

declare(strict_types=1);

namespace Tests\App\Access;

use App\Models\Access\PersonLink;
use App\Models\Ledger\Entry;
use App\Models\Outbound\LinkKind;
use App\Models\People\Person;
use App\Store\Access\PersonLinks;
use App\Store\Access\SecondFactor;
use App\Work\People\SendLink;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use Illuminate\Testing\TestResponse;
use Laravel\Sanctum\PersonalAccessToken;
use Tests\App\Support\AppTestCase;
use Tests\App\Support\Delivers;
use Tests\App\Support\OwnDatabase;

/** How people come in: by invitation, by a link for another password, with a second factor; and how nobody else does. */
final class WelcomeTest extends AppTestCase
{
    use Delivers;
    use OwnDatabase;

    private const PASSWORD = 'four ferns by the door';

    public function test_somebody_is_invited_by_a_letter_and_comes_in(): void
    {
        $given = ['name' => 'Kim Noor', 'email' => 'kim@larkmoss.example', 'role' => 'member', 'team' => 'Service Quayside'];
        $this->as('lena.abara', 'POST', 'people', $given)->assertForbidden();
        $made = $this->as('ines.okafor', 'POST', 'people', $given)->assertCreated()->json();
        self::assertSame(['kim.noor', false], [$made['handle'], $made['hasJoined']]);
        $this->assertRefused($this->as('ines.okafor', 'POST', 'people', $given), 409, 'invalid_values', '/email');
        self::assertSame('kim.noor2', $this->as('ines.okafor', 'POST', 'people', ['email' => 'k@n.example'] + $given)->json('handle'));
        $this->assertRefused($this->signIn('kim@larkmoss.example', ''), 422, 'invalid_request', '/password');

        $first = $this->linkSent($made['id']);
        $this->as('ines.okafor', 'POST', "people/{$made['id']}/invite")->assertNoContent();
        $link = $this->linkSent($made['id']);
        $this->getJson("/api/welcome/{$first}")->assertNotFound();
        $this->getJson("/api/welcome/{$link}")->assertOk()->assertJson(['kind' => 'invite', 'name' => 'Kim Noor', 'company' => 'Larkmoss']);
        foreach (['short' => 'four fern', 'common' => 'Password123!', 'own' => 'KimNoor2026', 'one' => 'aaaaaaaaaaaa'] as $bad) {
            $this->assertRefused($this->welcome($link, $bad), 422, 'invalid_values', '/password');
        }
        $this->welcome($link, self::PASSWORD)->assertOk()->assertJson(['handle' => 'kim.noor', 'role' => 'member']);
        $this->forget();
        $this->assertRefused($this->welcome($link, self::PASSWORD), 409, 'used');
        $this->signIn('kim@larkmoss.example', self::PASSWORD)->assertOk();
        $this->as('ines.okafor', 'POST', "people/{$made['id']}/invite")->assertConflict();
        self::assertSame(
            ['person_invited', 'person_joined', 'signed_in', 'signed_in'],
            Entry::query()->where('data', 'like', "%\"person\":{$made['id']}%")->orderBy('id')->pluck('kind')->all(),
        );
        $entry = Entry::query()->where('kind', 'person_invited')->oldest('id')->value('id');
        self::assertSame('invited Kim Noor', $this->as('ines.okafor', 'GET', "ledger/{$entry}")->json('entry.headInLedger.rest'));
    }

    public function test_a_list_of_people_is_read_first_and_invited_whole_or_not_at_all(): void
    {
        Queue::fake();
        $list = fn (string $path, string $text): TestResponse => $this->as('ines.okafor', 'POST', "people/list{$path}", ['text' => $text]);
        $good = "\u{FEFF}Name;E-mail;Team;Reports to;Role\n\"Reed; Ada\";ada@reed.example;Lawn;kim@reed.example;\n\n"
            ."Kim 김 🌿;kim@reed.example;;edda.marlow@larkmoss.example;Manager\n";
        $bad = "email,name,role,manager,time zone\nnobody,,boss,ghost@reed.example,Mars\nines.okafor@larkmoss.example,Ines,,,\n"
            ."twice@reed.example,A,,,\ntwice@reed.example,B,,,\n";
        foreach (['' => 'empty', 'x,y' => 'columns', "name,email\n" => 'nobody', "a\xFF" => ''] as $text => $why) {
            $answer = $list('/read', (string) $text);
            self::assertSame(422, $answer->status(), $text);
            self::assertStringContainsString($why, mb_strtolower((string) $answer->getContent()));
        }
        $problems = $list('/read', $bad)->assertOk()->json('problems');
        self::assertSame(['Line 2', 'Line 2', 'Line 2', 'Line 2', 'Line 2', 'Line 3', 'Line 5'], array_map(
            static fn (string $problem): string => substr($problem, 0, 6),
            array_values(collect($problems)->sort()->all()),
        ));
        $before = Person::query()->count();
        self::assertSame(422, $list('', $bad)->status());
        self::assertSame($before, Person::query()->count(), 'nobody is half invited');
        self::assertSame(['Reed; Ada', 'Kim 김 🌿'], array_column($list('/read', $good)->assertOk()->json('people'), 'name'));
        $list('', $good)->assertCreated();
        Queue::assertPushed(SendLink::class, 2);
        $kim = Person::query()->where('email', 'kim@reed.example')->firstOrFail();
        $ada = Person::query()->where('email', 'ada@reed.example')->firstOrFail();
        self::assertSame([$kim->id, 'Lawn', 'member', 'manager'], [$ada->manager_id, $ada->team, $ada->role, $kim->role]);
        self::assertSame($this->person('edda.marlow')->id, $kim->manager_id);
        $ring = "name,email,manager\nA,a@reed.example,b@reed.example\nB,b@reed.example,a@reed.example\n";
        self::assertSame(422, $list('', $ring)->status());
        self::assertSame(0, Person::query()->where('email', 'a@reed.example')->count());
        $this->as('tomas.weld', 'POST', 'people/list', ['text' => $good])->assertForbidden();
    }

    public function test_whoever_takes_another_password_ends_their_tokens(): void
    {
        $token = $this->person('lena.abara')->createToken('a script')->plainTextToken;
        $other = $this->person('bram.castellan')->createToken('a script')->plainTextToken;
        $this->as('lena.abara', 'PUT', 'password', ['current' => 'larkmoss', 'password' => self::PASSWORD])->assertNoContent();
        self::assertNull(PersonalAccessToken::findToken($token));
        self::assertNotNull(PersonalAccessToken::findToken($other));
    }

    public function test_another_password_is_chosen_by_a_link_and_ends_what_was(): void
    {
        $lena = $this->person('lena.abara');
        DB::table('sessions')->insert(['id' => 'old', 'user_id' => $lena->id, 'payload' => '', 'last_activity' => time()]);
        $this->forget();
        Queue::fake();
        $this->postJson('/api/password/forgotten', ['email' => 'nobody@larkmoss.example'])->assertNoContent();
        Queue::assertNothingPushed();
        $this->postJson('/api/password/forgotten', ['email' => $lena->email])->assertNoContent();
        Queue::assertPushed(SendLink::class, 1);
        $token = $lena->createToken('a script')->plainTextToken;
        preg_match('#/feed/.+$#', (string) $this->as('lena.abara', 'POST', 'feed')->json('url'), $feed);
        $this->get($feed[0])->assertOk();
        $this->forget();
        $link = PersonLinks::make(LinkKind::Reset, $lena->id);
        $this->welcome($link, self::PASSWORD)->assertOk();
        $this->forget();
        self::assertNull(PersonalAccessToken::findToken($token));
        $this->get($feed[0])->assertNotFound();
        self::assertSame(1, DB::table('entries')->where('kind', 'token_ended')->count());
        self::assertSame(0, DB::table('sessions')->where('id', 'old')->count(), 'whoever was in is out');
        $this->forget();
        $this->assertRefused($this->signIn($lena->email), 422, 'wrong_password', '/password');
        $this->signIn($lena->email, self::PASSWORD)->assertOk();

        $old = PersonLinks::make(LinkKind::Reset, $lena->id);
        PersonLink::query()->where('person_id', $lena->id)->update(['expires_at' => '2020-01-01 00:00:00']);
        $this->assertRefused($this->welcome($old, self::PASSWORD.'!'), 409, 'expired');
        $left = PersonLinks::make(LinkKind::Reset, $lena->id);
        $this->as('ines.okafor', 'PATCH', "people/{$lena->id}", ['active' => false])->assertOk();
        $this->forget();
        $this->assertRefused($this->welcome($left, self::PASSWORD.'!'), 404, 'not_found');
        foreach (['', 'x', str_repeat('a', 43), '../../x'] as $forged) {
            $this->getJson('/api/welcome/'.rawurlencode($forged))->assertNotFound();
        }
    }

    public function test_a_password_is_changed_with_the_old_one_and_ends_other_sign_ins(): void
    {
        $lena = $this->person('lena.abara');
        $this->signIn($lena->email)->assertOk();
        DB::table('sessions')->insert([
            'id' => 'elsewhere', 'user_id' => $lena->id, 'payload' => '', 'last_activity' => time(), 'user_agent' => 'Another',
        ]);
        DB::table('sessions')->insert([
            'id' => 'others', 'user_id' => $this->person('ines.okafor')->id, 'payload' => '', 'last_activity' => 1,
        ]);
        $signIns = $this->as('lena.abara', 'GET', 'sign-ins')->assertOk()->json();
        self::assertContains('Another', array_column($signIns, 'browser'));
        self::assertStringNotContainsString('elsewhere', (string) json_encode($signIns), 'what a browser sends is told nobody');
        $change = ['current' => 'larkmoss', 'password' => self::PASSWORD];
        $this->assertRefused($this->as('lena.abara', 'PUT', 'password', ['current' => 'no'] + $change), 422, 'invalid_values', '/current');
        $this->assertRefused($this->as('lena.abara', 'PUT', 'password', ['password' => 'x'] + $change), 422, 'invalid_values', '/password');
        $this->as('lena.abara', 'PUT', 'password', $change)->assertNoContent();
        self::assertSame(0, DB::table('sessions')->where('id', 'elsewhere')->count());
        self::assertSame(1, DB::table('sessions')->where('id', 'others')->count(), 'of others nothing is ended');
        $mark = $this->as('ines.okafor', 'GET', 'sign-ins')->json('0.mark');
        $this->as('lena.abara', 'DELETE', "sign-ins/{$mark}")->assertNotFound();
        $this->as('ines.okafor', 'DELETE', "sign-ins/{$mark}")->assertNoContent();
        self::assertSame(0, DB::table('sessions')->where('id', 'others')->count());
    }

    public function test_a_second_factor_is_asked_for_and_no_code_is_good_twice(): void
    {
        $lena = $this->person('lena.abara');
        $begun = $this->as('lena.abara', 'POST', 'second-factor/begin')->assertOk()->json();
        self::assertStringContainsString("secret={$begun['secret']}", $begun['uri']);
        $take = ['secret' => $begun['secret'], 'password' => 'larkmoss', 'code' => self::codeOf($begun['secret'])];
        foreach (['password' => 'x', 'code' => '1'] as $member => $bad) {
            $refused = $this->as('lena.abara', 'POST', 'second-factor', [$member => $bad] + $take);
            $this->assertRefused($refused, 422, 'invalid_values', "/{$member}");
        }
        $codes = $this->as('lena.abara', 'POST', 'second-factor', $take)->assertOk()->json('codes');
        self::assertCount(10, $codes);
        $kept = (string) DB::table('people')->where('id', $lena->id)->value('second_factor').DB::table('people')
            ->where('id', $lena->id)->value('recovery_codes');
        self::assertStringNotContainsString($begun['secret'], $kept);
        self::assertStringNotContainsString($codes[0], $kept);
        $this->forget();

        $this->assertRefused($this->signIn($lena->email), 422, 'code_wanted', '/code');
        $this->assertRefused($this->signIn($lena->email, 'larkmoss', '000000'), 422, 'wrong_code', '/code');
        $this->assertRefused($this->signIn($lena->email, 'larkmoss', $take['code']), 422, 'wrong_code', '/code');
        $this->assertRefused($this->signIn($lena->email, 'wrong', $codes[0]), 422, 'wrong_password', '/password');
        $this->signIn($lena->email, 'larkmoss', strtoupper($codes[0]))->assertOk()->assertJson(['recoveryCodes' => 9]);
        $this->forget();
        $this->assertRefused($this->signIn($lena->email, 'larkmoss', $codes[0]), 422, 'wrong_code', '/code');
        $this->signIn($lena->email, 'larkmoss', self::codeOf($begun['secret'], 1))->assertOk();
        $this->forget();
        $this->flushSession();
        // A link for another password does not go around it.
        $this->welcome(PersonLinks::make(LinkKind::Reset, $lena->id), self::PASSWORD)->assertNoContent();
        $this->assertRefused($this->getJson('/api/session', ['Origin' => config('app.url')]), 401, 'not_signed_in');
        $this->as('lena.abara', 'DELETE', 'second-factor', ['password' => self::PASSWORD])->assertNoContent();
        $this->forget();
        $this->signIn($lena->email, self::PASSWORD)->assertOk();
    }

    public function test_whoever_has_lost_their_second_factor_is_let_in_by_an_administrator(): void
    {
        $lena = $this->person('lena.abara');
        $lena->update(['second_factor' => SecondFactor::secret(), 'recovery_codes' => []]);
        $path = "people/{$lena->id}/second-factor";
        $this->assertRefused($this->signIn($lena->email), 422, 'code_wanted', '/code');
        $this->as('tomas.weld', 'DELETE', $path, ['password' => 'larkmoss'])->assertForbidden();
        $this->assertRefused($this->as('ines.okafor', 'DELETE', $path, ['password' => 'guess']), 422, 'invalid_values', '/password');
        $this->as('ines.okafor', 'DELETE', $path, ['password' => 'larkmoss'])->assertNoContent();
        $this->forget();
        $this->signIn($lena->email)->assertOk();
        $entry = Entry::query()->where('kind', 'second_factor_off')->value('id');
        $said = $this->as('ines.okafor', 'GET', "ledger/{$entry}")->json('entry.headInLedger');
        self::assertSame(['Ines Okafor', 'took away the second factor of Lena Abara'], array_values($said));
    }

    /** RFC 6238, appendix B, whose codes have eight digits: ours are the last six of them. */
    public function test_codes_are_those_of_the_standard(): void
    {
        $secret = 'GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ';
        foreach ([
            59 => '287082', 1111111109 => '081804', 1111111111 => '050471', 1234567890 => '005924', 2000000000 => '279037',
        ] as $at => $code) {
            self::assertSame($code, SecondFactor::code($secret, intdiv($at, 30)));
            self::assertSame(intdiv($at, 30), SecondFactor::step($secret, substr($code, 0, 3).' '.substr($code, 3), 0, $at + 20));
            self::assertNull(SecondFactor::step($secret, $code, 0, $at + 61));
        }
    }

    public function test_a_token_may_less_than_its_person(): void
    {
        $ticket = $this->ticket()['record'];
        $token = fn (array $given): TestResponse => $this->as('ines.okafor', 'POST', 'tokens', $given + [
            'name' => 't', 'password' => 'larkmoss',
        ]);
        $this->assertRefused($token(['password' => 'guess']), 422, 'invalid_values', '/password');
        $this->assertRefused($token(['until' => '2020-01-01T00:00:00Z']), 422, 'invalid_values', '/until');
        $secrets = [];
        foreach (['*', 'records', 'reading'] as $scope) {
            $secrets[$scope] = $token(['scope' => $scope, 'until' => '2999-01-01T00:00:00Z'])->assertCreated()->json('token');
        }
        $short = $token(['until' => '2999-01-01T00:00:00Z'])->json();
        DB::table('personal_access_tokens')->where('id', $short['id'])->update(['expires_at' => '2020-01-01 00:00:00']);
        foreach ($secrets as $scope => $secret) {
            foreach ([
                ['GET', "records/ticket/{$ticket['id']}", [], ['*', 'records', 'reading']],
                ['POST', "records/ticket/{$ticket['id']}/comments", ['text' => 'Hello'], ['*', 'records']],
                ['POST', 'named-conditions', ['recordType' => 'ticket', 'name' => "By {$scope}", 'file' => ['kind' => 'all', 'of' => [
                    ['kind' => 'is', 'field' => 'status', 'value' => 'open'],
                ]]], ['*']],
                ['GET', 'tokens', [], ['*']], ['DELETE', 'second-factor', ['password' => 'larkmoss'], ['*']],
            ] as [$method, $path, $body, $may]) {
                $this->forget();
                $answer = $this->withToken($secret)->json($method, "/api/{$path}", $body);
                $said = "{$scope}: {$method} {$path} {$answer->getContent()}";
                self::assertSame(in_array($scope, $may, true), $answer->isSuccessful(), $said);
            }
        }
        $this->forget();
        $this->assertRefused($this->withToken($short['token'])->getJson('/api/tokens'), 401, 'not_signed_in');
    }

    public function test_nobody_is_above_themselves_and_somebody_keeps_the_house(): void
    {
        [$edda, $tomas, $ines, $joost] = array_map(fn (string $handle): int => $this->person($handle)->id, [
            'edda.marlow', 'tomas.weld', 'ines.okafor', 'joost.perrin',
        ]);
        $change = fn (int $id, array $set): TestResponse => $this->as('ines.okafor', 'PATCH', "people/{$id}", $set);
        $this->assertRefused($change($edda, ['managerId' => $this->person('priya.lindqvist')->id]), 422, 'invalid_values', '/managerId');
        $change($tomas, ['managerId' => null])->assertOk();
        $this->assertRefused($change($tomas, ['email' => 'edda.marlow@larkmoss.example']), 422, 'invalid_values', '/email');
        $change($tomas, ['name' => 'Tomas Weld-Ørsted', 'team' => 'Direction', 'role' => 'administrator'])->assertOk();
        $change($tomas, ['role' => 'manager'])->assertOk();
        $change($joost, ['role' => 'member'])->assertOk();
        $this->assertRefused($change($ines, ['role' => 'member']), 422, 'invalid_values', '/role');
        $this->assertRefused($change($ines, ['active' => false]), 422, 'invalid_values');
    }

    public function test_a_company_is_opened_where_there_is_none(): void
    {
        self::assertSame(1, Artisan::call('company:link'), 'there is one already');
        try {
            $this->enterOwnDatabase();
            $this->getJson('/api/door')->assertOk()->assertJson(['hasCompany' => false]);
            Artisan::call('company:link');
            $link = basename(trim(Artisan::output()));
            $sets = $this->getJson("/api/welcome/{$link}")->assertOk()->assertJson(['kind' => 'begin'])->json('sets');
            self::assertSame(['sales', 'service', 'contracts'], array_column($sets, 'name'));
            $given = [
                'company' => 'Fern & Daughters', 'timeZone' => 'Europe/Lisbon', 'from' => '08:00', 'to' => '16:30',
                'days' => [1, 2, 3, 4, 5], 'sets' => ['sales', 'contracts', 'service'], 'name' => 'Maud Fern',
                'email' => 'maud@fern.example', 'password' => self::PASSWORD,
            ];
            $open = fn (array $other): TestResponse => $this->postJson("/api/welcome/{$link}/company", $other + $given, [
                'Origin' => config('app.url'),
            ]);
            $bads = [
                'company' => ' ', 'timeZone' => 'Mars/Olympus', 'to' => '07:00', 'days' => [], 'password' => 'maudfern', 'email' => 'maud',
            ];
            foreach ($bads as $member => $bad) {
                self::assertSame(422, $open([$member => $bad])->status(), $member);
                self::assertSame(0, Person::query()->count() + DB::table('company')->count(), $member);
            }
            $open([])->assertOk()->assertJson(['company' => 'Fern & Daughters', 'role' => 'administrator', 'timeZone' => 'Europe/Lisbon']);
            $this->assertRefused($open([]), 409, 'used');
            $this->forget();
            $this->signIn('maud@fern.example', self::PASSWORD)->assertOk();
            $maud = Person::query()->firstOrFail();
            $rules = $this->actingAs($maud, 'sanctum')->getJson('/api/rules')->assertOk()->json();
            self::assertSame(['draft'], array_values(array_unique(array_column($rules, 'status'))), 'none is in force');
            self::assertCount(6, $rules);
            foreach ($rules as $rule) {
                self::assertSame([], $this->getJson("/api/rules/{$rule['id']}")->assertOk()->json('reading.problems'), $rule['name']);
                $this->postJson("/api/rules/{$rule['id']}/publish", ['version' => 1])->assertOk();
            }
            $values = ['name' => 'Brine', 'status' => 'prospect', 'owner' => $maud->id];
            $customer = $this->postJson('/api/records/customer', ['values' => $values])->assertCreated()->json('record');
            $this->patchJson("/api/records/customer/{$customer['id']}", ['version' => 1, 'values' => ['status' => 'active']])->assertOk();
            self::assertSame(['Welcome Brine'], DB::table('tasks')->pluck('title')->all(), 'the first rule fires');
        } finally {
            $this->leaveOwnDatabase();
            DB::beginTransaction();
        }
    }

    /** The link in the letter that was sent last. */
    private function linkSent(int $person): string
    {
        $letter = $this->arriving(fn () => $this->app->call([new SendLink($person, LinkKind::Invite), 'handle']));
        self::assertMatchesRegularExpression('/^Subject: .*invites you/m', $letter);
        self::assertSame(1, preg_match('#/welcome/([A-Za-z0-9_-]{43})#', quoted_printable_decode($letter), $found), $letter);

        return $found[1] ?? '';
    }

    private static function codeOf(string $secret, int $ahead = 0): string
    {
        return SecondFactor::code($secret, intdiv(time(), 30) + $ahead);
    }

    private function welcome(string $link, string $password): TestResponse
    {
        return $this->postJson("/api/welcome/{$link}", ['password' => $password], ['Origin' => config('app.url')]);
    }
}
