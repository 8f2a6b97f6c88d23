<?php

declare(strict_types=1);

namespace App\Providers;

use App\Evidence\Rehearsal\PlayProofs;
use App\Http\Ledger\EntryResources;
use App\Http\Lists\GroupResources;
use App\Http\Middleware\ConcurrencyLimit;
use App\Http\Middleware\StartSession;
use App\Http\Outbound\Messages;
use App\Http\Records\RecordResources;
use App\Http\Slips\Slips;
use App\Http\Tasks\Tasks;
use App\Http\Timing\Ahead;
use App\Http\Timing\RunController;
use App\Models\Events\CallsWait;
use App\Models\Events\MessagesWait;
use App\Models\Events\RulesChanged;
use App\Models\People\Person;
use App\Store\Access\AccessScope;
use App\Store\HouseClock;
use App\Store\LedgerConnection;
use App\Store\Operations\Timings;
use App\Store\People\PeopleStore;
use App\Store\Records\PaperFacts;
use App\Store\Records\StaleVersion;
use App\Store\Remembered;
use App\Store\Rules\StoredRuleBook;
use App\Store\Setup\Company;
use App\Store\Types\SchemaStore;
use App\Work\Operations\Health;
use App\Work\Operations\PatientWorker;
use App\Work\Operations\QueueHeartbeat;
use App\Work\Outbound\DeliverLetters;
use App\Work\Outbound\MakeCalls;
use Illuminate\Auth\EloquentUserProvider;
use Illuminate\Cache\RateLimiting\Limit;
use Illuminate\Contracts\Cache\Factory as Cache;
use Illuminate\Contracts\Foundation\Application;
use Illuminate\Database\Connection;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Foundation\Console\AboutCommand;
use Illuminate\Http\Request;
use Illuminate\Queue\Events\JobProcessed;
use Illuminate\Queue\Events\Looping;
use Illuminate\Queue\Events\WorkerStopping;
use Illuminate\Queue\Worker;
use Illuminate\Session\Middleware\StartSession as StartsSession;
use Illuminate\Session\SessionManager;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\Event;
use Illuminate\Support\Facades\RateLimiter;
use Illuminate\Support\Facades\URL;
use Illuminate\Support\Facades\Vite;
use Illuminate\Support\ServiceProvider;
use Laravel\Sanctum\PersonalAccessToken;
use Laravel\Sanctum\Sanctum;
use VividLedger\Engine\Engine;
use VividLedger\House\Directory;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Schema\Schema;
use VividLedger\Text\RuleText;
use VividLedger\Time\Clock;

/** Puts the parts together. */
final class LedgerServiceProvider extends ServiceProvider
{
    /** What makes answers for people out of records. */
    private const SHOWN = [
        RecordResources::class, EntryResources::class, Ahead::class, Tasks::class, Messages::class, Slips::class, RunController::class,
        StaleVersion::class, GroupResources::class,
    ];

    public function register(): void
    {
        Connection::resolverFor('mariadb', function (...$given): LedgerConnection {
            $connection = new LedgerConnection(...$given);
            $connection->locksInOrderOf(fn (): Schema => $this->app->make(SchemaStore::class)->schema());

            return $connection;
        });
        $this->app->bind(LedgerConnection::class, static fn (Application $app): mixed => $app->make('db.connection'));
        // Files are given out by our own doors only.
        config(['filesystems.disks.local.serve' => false]);
        foreach ([SchemaStore::class, Company::class, HouseClock::class, StoredRuleBook::class, ConcurrencyLimit::class,
            Timings::class] as $once) {
            $this->app->scoped($once);
        }
        $this->app->singleton(StartsSession::class, static fn (Application $app): StartSession => new StartSession(
            $app->make(SessionManager::class), static fn () => $app->make(Cache::class),
        ));
        $this->app->singleton(QueueHeartbeat::class);
        $this->app->extend('queue.worker', static fn (Worker $worker): PatientWorker => PatientWorker::like($worker));
        $this->app->bind(Clock::class, HouseClock::class);
        $this->app->bind(PeopleStore::class, static fn (Application $app): PeopleStore => new PeopleStore($app->make(SchemaStore::class)));
        $this->app->bind(Directory::class, PeopleStore::class);
        // What is shown to a person names only what they may see.
        $shown = static fn (Application $app): PeopleStore => new PeopleStore($app->make(SchemaStore::class),
            $app->make(AccessScope::class));
        $this->app->when(self::SHOWN)->needs(PeopleStore::class)->give($shown);
        $this->app->bind(RuleReader::class, static fn (Application $app): RuleReader => new RuleReader(
            $app->make(SchemaStore::class)->schema(), $app->make(Directory::class), $app->make(Company::class)->zone(),
        ));
        $this->app->bind(RuleText::class, static fn (Application $app): RuleText => new RuleText(
            $app->make(SchemaStore::class)->schema(), $app->make(Directory::class), $app->make(Company::class)->zone(),
        ));
        $this->app->bind(PaperFacts::class, static fn (Application $app): PaperFacts => new PaperFacts(
            $app->make(SchemaStore::class), $app->make(HouseClock::class)->now(), $app->make(Company::class)->zone(),
        ));
        $this->app->bind(
            Engine::class,
            static fn (Application $app): Engine => new Engine(
                $app->make(SchemaStore::class)->schema(),
                $app->make(Company::class)->zone(),
            ),
        );
    }

    public function boot(): void
    {
        // Addresses from the root hold behind any port or proxy.
        Vite::createAssetPathsUsing(static fn (string $path): string => '/'.$path);
        // What comes to wait is called for at once, by whoever works the queues.
        Remembered::watch();
        Event::listen(MessagesWait::class, static fn () => DeliverLetters::dispatch());
        Event::listen(CallsWait::class, static fn () => MakeCalls::dispatch());
        Event::listen(RulesChanged::class, static fn () => PlayProofs::dispatch());
        Event::listen(Looping::class, [QueueHeartbeat::class, 'looping']);
        Event::listen(JobProcessed::class, [QueueHeartbeat::class, 'processed']);
        Event::listen(WorkerStopping::class, [QueueHeartbeat::class, 'stopping']);
        // Whoever guesses at links of letters guesses slowly.
        RateLimiter::for('slip', static fn (Request $request): array => [
            Limit::perMinute(240)->by('slips:'.$request->ip()),
            Limit::perMinute(60)->by('slip:'.$request->route('token')),
        ]);
        RateLimiter::for('hook', static fn (Request $request): Limit => Limit::perMinute(600)->by('hook:'.$request->route('key')));
        RateLimiter::for('welcome', static fn (Request $request): Limit => Limit::perMinute(30)->by('welcome:'.$request->ip()));
        RateLimiter::for('decide', static fn (Request $request): Limit => Limit::perMinute(60)->by((string) $request->ip()));
        AboutCommand::add('Vivid Ledger', Health::about(...));
        // Addresses we give out never follow the name a request came by, which anybody can write.
        URL::forceRootUrl((string) config('app.url'));
        // Whoever has left is out at once: neither a session nor a token of theirs is good.
        Auth::provider('people', static fn (Application $app): EloquentUserProvider => (new EloquentUserProvider($app->make('hash'),
            Person::class))
            ->withQuery(static fn (Builder $people): Builder => $people->where('active', true)));
        Sanctum::authenticateAccessTokensUsing(
            static fn (PersonalAccessToken $token, bool $valid): bool => $valid && $token->tokenable instanceof Person
                && $token->tokenable->active,
        );
    }
}
