<?php

declare(strict_types=1);

namespace Tests\App\Support;

use App\Demo\Demo;
use App\Models\People\Person;
use App\Store\Access\AccessScope;
use App\Store\HouseClock;
use App\Store\Lists\RecordSearch;
use Illuminate\Contracts\Console\Kernel;
use Illuminate\Foundation\Application;
use Illuminate\Foundation\Testing\TestCase;
use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;

/**
 * Larkmoss without its history, in a database of this process's own. Each test is rolled back, and the house clock
 * stands still at 09:40 in Berlin on 24 November 2026.
 */
abstract class AppTestCase extends TestCase
{
    protected const NOW = '2026-11-24T08:40:00Z';

    protected static bool $prepared = false;

    private ?string $before = null;

    public function createApplication(): Application
    {
        $database = (getenv('TEST_DATABASE') ?: 'vivid_ledger_test').'_'.(getenv('TEST_TOKEN') ?: '1');
        putenv("DB_DATABASE={$database}");
        $_ENV['DB_DATABASE'] = $_SERVER['DB_DATABASE'] = $database;
        /** @var Application $app */
        $app = require dirname(__DIR__, 3).'/bootstrap/app.php';
        $app->make(Kernel::class)->bootstrap();
        if (! self::$prepared) {
            config(['database.connections.mariadb.database' => null]);
            DB::statement("CREATE DATABASE IF NOT EXISTS `{$database}`");
            DB::purge();
            config(['database.connections.mariadb.database' => $database]);
            $app->make(Kernel::class)->call('migrate:fresh', ['--force' => true]);
            $app->make(Demo::class)->loadBase();
            self::$prepared = true;
        }

        return $app;
    }

    protected function setUp(): void
    {
        parent::setUp();
        $this->clockAt(self::NOW);
        // Pages are judged without the styles and scripts of a build.
        $this->withoutVite();
        if ($this->isRolledBack()) {
            // What is never committed stands in no full-text index, however many numbers the tests before this one have used up.
            $few = fn (): RecordSearch => new RecordSearch($this->app->make(AccessScope::class), PHP_INT_MAX);
            $this->app->bind(RecordSearch::class, $few);
            DB::beginTransaction();
        }
    }

    protected function tearDown(): void
    {
        if ($this->isRolledBack() || DB::transactionLevel() > 0) {
            // Whatever a test that failed had begun besides: what stays open keeps all that come after it waiting.
            DB::rollBack(0);
        }
        parent::tearDown();
    }

    /** Tests with several processes commit, and clean up after themselves. */
    protected function isRolledBack(): bool
    {
        return true;
    }

    /** Nothing is remembered of the story before, as in a new process: neither what was read nor whom controllers were given. */
    protected function forgetEverything(): void
    {
        $this->app->forgetScopedInstances();
        $this->flushControllers();
    }

    protected function flushControllers(): void
    {
        foreach (\Illuminate\Support\Facades\Route::getRoutes()->getRoutes() as $route) {
            $route->flushController();
        }
    }

    protected function clockAt(string $at): void
    {
        $this->app->make(HouseClock::class)->hold(new \DateTimeImmutable($at));
    }

    protected function person(string $handle): Person
    {
        return Person::query()->where('handle', $handle)->firstOrFail();
    }

    /** Sends a request as a person, as the front end would. */
    protected function as(string $handle, string $method, string $path, mixed $body = []): TestResponse
    {
        if ($this->before !== $handle) {
            // Somebody else's request is another process's.
            $this->flushControllers();
            $this->before = $handle;
        }

        return $this->actingAs($this->person($handle), 'sanctum')->json($method, "/api/{$path}", is_array($body) ? $body : []);
    }

    /**
     * @param  array<string, mixed>  $values
     * @return array<string, mixed> the saved shape
     */
    protected function created(string $type, array $values, string $handle = 'bram.castellan'): array
    {
        return $this->as($handle, 'POST', "records/{$type}", ['values' => $values])->assertCreated()->json();
    }

    /** @return array<string, mixed> a customer's record */
    protected function customer(string $name = 'Brine & Barrow Hotel', string $plan = 'care'): array
    {
        return $this->created('customer', ['name' => $name, 'plan' => $plan, 'owner' => $this->person('jonas.pike')->id])['record'];
    }

    /**
     * @param  array<string, mixed>  $values
     * @return array<string, mixed> the saved shape
     */
    protected function ticket(array $values = []): array
    {
        return $this->created('ticket', $values + [
            'subject' => 'Ficus wall wilting', 'customer' => $values['customer']
                ?? $this->customer()['id'], 'priority' => 'normal', 'status' => 'open', 'owner' => $this->person('bram.castellan')->id,
        ]);
    }

    /**
     * @param  array<string, mixed>  $record
     * @param  array<string, mixed>  $values
     * @return array<string, mixed> the saved shape
     */
    protected function change(array $record, array $values, string $handle = 'bram.castellan'): array
    {
        return $this->as(
            $handle,
            'PATCH',
            "records/{$record['type']}/{$record['id']}",
            ['version' => $record['version'], 'values' => $values],
        )->assertOk()->json();
    }

    /**
     * Changes a ticket as it now is.
     *
     * @param  array<string, mixed>  $values
     */
    protected function becomes(int $ticket, array $values): void
    {
        $this->change(
            ['type' => 'ticket', 'id' => $ticket, 'version' => (int) DB::table('records_ticket')->where('id', $ticket)->value('version')],
            $values,
        );
    }

    /** @return array<string, non-empty-list<int>> a record of every type, by type */
    protected function oneOfEach(): array
    {
        $customer = $this->customer()['id'];
        $made = static fn (array $saved): array => [$saved['record']['id']];
        $ids = ['customer' => [$customer], 'partner' => $made($this->created('partner', ['name' => 'Moor Crew']))];
        foreach (['contact' => ['name' => 'Marit Solheim'],
            'ticket' => ['subject' => 'Palm leans', 'priority' => 'normal', 'status' => 'open'],
            'agreement' => ['title' => 'Care', 'status' => 'running'],
            'quote' => ['subject' => 'Ferns', 'stage' => 'draft']] as $type => $values) {
            $ids[$type] = $made($this->created($type, $values + ['customer' => $customer]));
        }
        $ids['visit'] = $made($this->created('visit', ['purpose' => 'Round', 'agreement' => $ids['agreement'][0], 'status' => 'planned']));

        return $ids;
    }

    /** @return array<string, mixed> a rule of the demo, as its file has it */
    protected function demoFile(string $name): array
    {
        $file = json_decode((string) file_get_contents(database_path("demo/rules/{$name}.json")), true, 64, JSON_THROW_ON_ERROR);

        return array_diff_key($file, ['format' => true]);
    }

    /** @param  array<string, mixed>  $file */
    protected function inForce(array $file): int
    {
        $rule = $this->as('ines.okafor', 'POST', 'rules', ['file' => $file])->assertCreated()->json();
        $this->as('ines.okafor', 'POST', "rules/{$rule['id']}/publish", ['version' => $rule['draftVersion']])->assertOk();

        return $rule['id'];
    }

    /** Asserts a refusal: its status, its code, and the places it names. */
    protected function assertRefused(TestResponse $answer, int $status, string $code, string ...$places): void
    {
        $answer->assertStatus($status)->assertHeader(
            'Content-Type',
            'application/problem+json',
        )->assertJsonPath('code', $code)->assertJsonPath('status', $status);
        foreach ($places as $place) {
            self::assertContains($place, array_column($answer->json('problems'), 'at'), (string) $answer->getContent());
        }
    }

    /** How often a rule has fired, on any record. */
    protected function firings(int $rule): int
    {
        return DB::table('entries')->where(['rule_id' => $rule, 'kind' => 'fired'])->count();
    }

    protected function signIn(string $email, string $password = 'larkmoss', ?string $code = null): TestResponse
    {
        return $this->postJson('/api/session', ['email' => $email, 'password' => $password, 'code' => $code], [
            'Origin' => config('app.url'),
        ]);
    }

    /** Whoever is signed in is so no more for the next request. */
    protected function forget(): void
    {
        $this->app['auth']->forgetGuards();
    }
}
