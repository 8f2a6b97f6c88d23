<?php

declare(strict_types=1);

namespace Tests\App\Access;

use App\Http\Describe\Document;
use App\Models\People\Person;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Route;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\App\Support\AppTestCase;

/** Who gets in, and who may do what: always judged on the server. */
final class AccessTest extends AppTestCase
{
    /** @return iterable<string, array{string, array<string, bool>}> role's person, what they may do */
    public static function roles(): iterable
    {
        yield 'administrator' => ['ines.okafor', ['read' => true, 'records' => true, 'rules' => true, 'others' => true]];
        yield 'manager' => ['tomas.weld', ['read' => true, 'records' => true, 'rules' => false, 'others' => true]];
        yield 'member' => ['lena.abara', ['read' => true, 'records' => true, 'rules' => false, 'others' => false]];
        yield 'auditor' => ['odile.march', ['read' => true, 'records' => false, 'rules' => false, 'others' => false]];
    }

    /** @param  array<string, bool>  $may */
    #[DataProvider('roles')]
    public function test_a_role_may_what_it_may_and_nothing_else(string $handle, array $may): void
    {
        $rule = $this->inForce($this->demoFile('010-urgent-ticket'));
        $ticket = $this->ticket(['priority' => 'urgent'])['record'];
        $spare = $this->ticket(['subject' => 'To be deleted'])['record'];
        $task = (int) DB::table('tasks')->value('id');
        $requests = [
            'read' => [['GET', 'session'], ['GET', 'schema'], ['GET', 'people'], ['GET', 'company'], ['GET', 'today'],
                ['GET', 'today/team'],
                ['GET', 'records/ticket'], [
                    'GET', "records/ticket/{$ticket['id']}",
                ],
                [
                    'GET', 'records/ticket/counts/status',
                ], ['GET', 'rules'], ['GET', "rules/{$rule}"], ['GET', "rules/{$rule}/pages"], ['GET', 'tasks?whose=all'],
                ['GET', 'ledger'], ['GET', 'tokens'],
                ['GET', "records/ticket/{$ticket['id']}/beside"], [
                    'GET', "records/ticket/{$ticket['id']}/messages",
                ], ['GET', 'messages'], ['GET', 'notes'],
                ['GET', 'sign-offs'], ['GET', 'sign-offs?box=asked'], ['GET', 'routes'], ['GET', 'letters'],
                ['GET', "records/ticket/{$ticket['id']}/sign-offs"], ['GET', 'named-conditions'],
                ['POST', 'offers', ['file' => $this->demoFile('010-urgent-ticket'), 'at' => '/when/fields', 'by' => 'choose']],
                ['POST', "records/ticket/{$ticket['id']}/follow", ['follows' => true]]],
            'records' => [[
                'PATCH', "records/ticket/{$ticket['id']}", ['version' => 1, 'values' => []],
            ], ['POST', 'records/customer', ['values' => ['name' => 'New']]],
                ['POST', "records/ticket/{$ticket['id']}/comments", ['text' => 'Hello']],
                ['DELETE', "records/ticket/{$spare['id']}?version=1"], ['POST', "records/ticket/{$spare['id']}/restore"]],
            'rules' => [['GET', 'mail-room'], ['GET', 'today/rules'], ['PATCH', 'company', ['fallbackPersonId' => null]], [
                'POST', 'rules', ['file' => $this->demoFile('030-waiting-since')],
            ], ['POST', 'rules/read', ['file' => ['on' => 'ticket']]],
                [
                    'PUT', "rules/{$rule}/draft", ['version' => 2, 'file' => $this->demoFile('010-urgent-ticket')],
                ], ['POST', "rules/{$rule}/status", ['status' => 'paused']],
                ['POST', "rules/{$rule}/copy", ['on' => 'ticket']], ['POST', "rules/{$rule}/either-or", ['set' => 'Urgent']], [
                    'POST', "records/ticket/{$ticket['id']}/guards/{$rule}", ['why' => 'tried out'],
                ],
                ['PATCH', "people/{$this->person('odile.march')->id}", ['limit' => '10']],
                ['POST', 'routes', ['recordType' => 'ticket', 'name' => "By {$handle}", 'steps' => [[
                    'who' => ['kind' => 'team', 'team' => 'Finance'],
                ]]]],
                ['POST', 'letters', ['recordType' => 'ticket', 'name' => "By {$handle}", 'subject' => 'S', 'body' => '<p>B</p>']],
                ['POST', 'named-conditions', ['recordType' => 'ticket', 'name' => "By {$handle}",
                    'file' => ['kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'status', 'value' => 'open']]]]]],
            'others' => [['POST', "tasks/{$task}/complete"], ['POST', "tasks/{$task}/reopen"]],
        ];
        foreach ($requests as $what => $list) {
            foreach ($list as $request) {
                $answer = $this->as($handle, ...$request);
                if ($may[$what]) {
                    self::assertTrue($answer->isSuccessful(), "{$request[1]}: {$answer->getContent()}");
                } else {
                    $this->assertRefused($answer, 403, 'not_allowed');
                }
            }
        }
    }

    public function test_what_happens_at_the_doors_is_for_those_who_look_after_them(): void
    {
        $this->signIn('lena.abara@larkmoss.example')->assertOk();
        $entry = (int) DB::table('entries')->where('kind', 'signed_in')->value('id');
        foreach (['ines.okafor' => true, 'odile.march' => true, 'tomas.weld' => false, 'lena.abara' => false] as $handle => $sees) {
            $ledger = array_column($this->as($handle, 'GET', 'ledger')->json('entries'), 'kind');
            $shown = array_column($this->as($handle, 'GET', 'ledger?show=administration')->json('entries'), 'kind');
            self::assertSame([$sees, $sees, $sees], [
                in_array('signed_in', $ledger, true), in_array('signed_in', $shown, true),
                $this->as($handle, 'GET', "ledger/{$entry}")->isOk(),
            ], $handle);
            self::assertSame($handle === 'ines.okafor', $this->as($handle, 'GET', 'session')->json('hasMailRoom'), $handle);
        }
    }

    public function test_nobody_gets_in_without_signing_in(): void
    {
        foreach (Route::getRoutes() as $route) {
            // Whoever has a letter decides from it; the signed link is what lets them in.
            $isOpen = array_intersect(["/{$route->uri()}", "{$route->methods()[0]} /{$route->uri()}"], Document::OPEN) !== [];
            if (str_starts_with($route->uri(), 'api/') && ! $isOpen) {
                $this->assertRefused(
                    $this->json(
                        $route->methods()[0],
                        strtr($route->uri(), ['{type}' => 'ticket', '{id}' => '1', '{number}' => '1', '{field}' => 'status']),
                    ),
                    401,
                    'not_signed_in',
                );
            }
        }
        $this->assertRefused($this->json('GET', 'api/session'), 401, 'not_signed_in');
    }

    public function test_signing_in_takes_the_right_password_and_is_throttled(): void
    {
        $origin = ['Origin' => config('app.url')];
        $try = fn (string $email, string $password) => $this->postJson(
            '/api/session',
            ['email' => $email, 'password' => $password],
            $origin,
        );
        $try(
            'ines.okafor@larkmoss.example',
            'larkmoss',
        )->assertOk()->assertJsonPath('role', 'administrator')->assertJsonPath('mayEditRules', true);
        for ($count = 0; $count < 12; $count++) {
            $try('ines.okafor@larkmoss.example', 'larkmoss')->assertOk();
        }
        Person::query()->where('handle', 'bram.castellan')->update(['active' => false]);
        $this->assertRefused($try('bram.castellan@larkmoss.example', 'larkmoss'), 422, 'wrong_password', '/password');
        for ($count = 0; $count < 5; $count++) {
            $this->assertRefused($try('lena.abara@larkmoss.example', 'guess'), 422, 'wrong_password', '/password');
        }
        $this->assertRefused($try('lena.abara@larkmoss.example', 'larkmoss'), 429, 'too_many_tries');
        self::assertStringStartsWith('$2y$', (string) Person::query()->value('password'));
    }

    public function test_a_token_lets_a_script_use_the_same_api(): void
    {
        Artisan::call('ledger:token', ['person' => 'lena.abara', 'name' => 'nightly']);
        $token = trim(Artisan::output());
        $customer = $this->customer();
        $this->app['auth']->forgetGuards();
        $saved = $this->withToken($token)->postJson(
            '/api/records/ticket',
            ['values' => ['subject' => 'By script', 'customer' => $customer['id'], 'priority' => 'low', 'status' => 'open']],
        )->assertCreated()->json();

        self::assertSame(
            ['created', 'api', $this->person('lena.abara')->id],
            array_values((array) DB::selectOne('SELECT kind, via, actor_id FROM entries WHERE id = ?', [$saved['entry']])),
        );
        $this->assertRefused($this->withToken($token)->postJson('/api/rules', ['file' => ['on' => 'ticket']]), 403, 'not_allowed');
        $made = $this->withToken($token)->postJson('/api/tokens', ['name' => 'second', 'password' => 'larkmoss'])->assertCreated()->json();
        self::assertStringStartsWith($made['id'].'|vl_', $made['token']);
        self::assertSame([null, null], array_column($this->withToken($token)->getJson('/api/tokens')->json(), 'token'));
        $this->withToken($token)->deleteJson(
            '/api/tokens/'.DB::table('personal_access_tokens')->where('name', 'nightly')->value('id'),
        )->assertNoContent();
        $this->app['auth']->forgetGuards();
        $this->assertRefused($this->withToken($token)->getJson('/api/tokens'), 401, 'not_signed_in');
        self::assertSame(1, Artisan::call('ledger:token', ['person' => 'nobody', 'name' => 'x']));
    }

    public function test_the_description_of_the_api_is_current_and_whole(): void
    {
        self::assertSame(
            Document::json(),
            file_get_contents(base_path('docs/openapi.json')),
            'Run: php artisan ledger:openapi && npm run api',
        );
        $described = [];
        foreach (json_decode(Document::json(), true, 512, JSON_THROW_ON_ERROR)['paths'] as $path => $operations) {
            foreach (array_keys($operations) as $method) {
                $described[] = strtoupper($method).' '.$path;
            }
        }
        $routed = [];
        foreach (Route::getRoutes() as $route) {
            if (str_starts_with($route->uri(), 'api/')) {
                $routed[] = $route->methods()[0].' /'.$route->uri();
            }
        }
        self::assertEqualsCanonicalizing($routed, $described);
    }
}
