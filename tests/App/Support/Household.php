<?php

declare(strict_types=1);

namespace Tests\App\Support;

use App\Models\People\Person;
use Illuminate\Contracts\Http\Kernel;
use Illuminate\Foundation\Application;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Route;
use Random\Engine\Mt19937;
use Random\Randomizer;

/** What many people of one company do at the same time, act by act, each by a request of their own. */
final class Household
{
    /** @var array<string, int> how often each answer came; a refusal goes by its reason, any other by its status and what was asked */
    public array $answers = [];

    private readonly Randomizer $random;

    public function __construct(private readonly Application $app, private readonly Kernel $kernel, int $seed)
    {
        $this->random = new Randomizer(new Mt19937($seed));
    }

    public function act(int $process, int $nth): void
    {
        match ($process) {
            0, 1 => $this->savesTickets(),
            2 => $this->savesCustomers(),
            3, 4 => $this->savesQuotes(),
            5 => $this->decides(),
            6 => $this->reverses(),
            default => $this->keepsHouse($nth),
        };
    }

    private function savesTickets(): void
    {
        if ($this->random->getInt(0, 2) === 0) {
            $this->send('bram.castellan', 'POST', 'records/ticket', ['values' => [
                'subject' => 'Soaked', 'customer' => $this->any('records_customer', 'soaked %'), 'priority' => 'normal', 'status' => 'open',
            ]]);
        } else {
            $this->change('bram.castellan', 'ticket', $this->any('records_ticket'), [
                'status' => ['open', 'waiting', 'closed'][$this->random->getInt(0, 2)],
            ]);
        }
    }

    private function savesCustomers(): void
    {
        $this->change('bram.castellan', 'customer', $this->any('records_customer', 'soaked %'), [
            'plan' => ['care', 'full_care'][$this->random->getInt(0, 1)], 'notes' => (string) $this->random->getInt(0, 99),
        ]);
    }

    private function savesQuotes(): void
    {
        $this->change('jonas.pike', 'quote', $this->any('records_quote'), $this->random->getInt(0, 1) === 0
            ? ['discount' => (string) [5, 20][$this->random->getInt(0, 1)]] : ['amount' => (string) $this->random->getInt(1, 999)]);
    }

    /** Whoever is asked: the sign-off may have gone to somebody else since. */
    private function decides(): void
    {
        $seat = DB::table('sign_off_seats')->where('state', 'waiting')->inRandomOrder()->first(['sign_off_id', 'person_id']);
        if ($seat !== null) {
            $this->send((string) DB::table('people')->where('id', $seat->person_id)->value('handle'), 'POST', 'sign-offs/answers', [
                'ids' => [$seat->sign_off_id], 'answer' => ['yes', 'no'][$this->random->getInt(0, 1)], 'comment' => 'So be it',
            ]);
        }
    }

    private function reverses(): void
    {
        $entry = DB::table('entries')->where(['kind' => 'changed', 'record_type' => 'quote'])->whereNotNull('actor_id')
            ->orderByDesc('id')->limit(4)->pluck('id')->all();
        if ($entry !== []) {
            $this->send('ines.okafor', 'POST', 'reversals', [
                'entries' => [$entry[$this->random->getInt(0, count($entry) - 1)]], 'why' => 'Soaked',
                'force' => $this->random->getInt(0, 1) === 1,
            ]);
        }
    }

    /** Time passes; letters and conditions are altered; somebody leaves, and comes back. */
    private function keepsHouse(int $nth): void
    {
        DB::table('company')->increment('clock_offset', 1200);
        $milo = (int) DB::table('people')->where('handle', 'milo.trent')->value('id');
        $letter = (array) DB::table('letters')->where('name', 'Soaked')->first(['id', 'version']);
        match ($nth % 4) {
            0 => $this->send('ines.okafor', 'POST', "people/{$milo}/leave", ['to' => 'lena.abara']),
            2 => $this->send('ines.okafor', 'POST', "people/{$milo}/return"),
            default => $this->send('ines.okafor', 'PUT', "letters/{$letter['id']}", [
                'recordType' => 'ticket', 'name' => 'Soaked', 'subject' => ['First', 'Second'][$nth % 2], 'body' => '<p>Wet</p>',
                'version' => $letter['version'],
            ]),
        };
        usleep(120_000);
    }

    private function any(string $table, string $name = '%'): int
    {
        return (int) DB::table($table)->when($name !== '%', static fn ($of) => $of->where('name', 'like', $name))
            ->inRandomOrder()->value('id');
    }

    /** @param  array<string, mixed>  $values */
    private function change(string $as, string $type, int $id, array $values): void
    {
        $this->send($as, 'PATCH', "records/{$type}/{$id}", [
            'version' => (int) DB::table("records_{$type}")->where('id', $id)->value('version'), 'values' => $values,
        ]);
    }

    /** @param  array<string, mixed>  $body */
    private function send(string $as, string $method, string $path, array $body = []): void
    {
        $this->app->forgetScopedInstances();
        foreach (Route::getRoutes()->getRoutes() as $route) {
            $route->flushController();
        }
        $guard = $this->app->make('auth')->guard('sanctum');
        $guard->setUser(Person::query()->where('handle', $as)->firstOrFail());
        $request = Request::create("/api/{$path}", $method, server: [
            'HTTP_ACCEPT' => 'application/json', 'CONTENT_TYPE' => 'application/json',
        ], content: (string) json_encode($body));
        $answer = $this->kernel->handle($request);
        $this->kernel->terminate($request, $answer);
        $code = json_decode((string) $answer->getContent(), true)['code'] ?? null;
        $said = match (true) {
            $answer->isSuccessful() => 'taken',
            in_array($answer->getStatusCode(), [403, 404, 409, 422, 423], true) && is_string($code) => $code,
            default => "{$answer->getStatusCode()} {$method} {$path}: {$answer->getContent()}",
        };
        $this->answers[$said] = ($this->answers[$said] ?? 0) + 1;
    }
}
