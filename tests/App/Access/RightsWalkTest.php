<?php

declare(strict_types=1);

namespace Tests\App\Access;

use App\Models\Access\StoredRole;
use App\Models\Access\TokenScope;
use App\Models\People\Person;
use App\Store\Types\SchemaStore;
use Illuminate\Routing\Route as OneRoute;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Route;
use Illuminate\Testing\TestResponse;
use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\Yaml\Yaml;
use Tests\App\Support\AppTestCase;
use VividLedger\Rights\Act;
use VividLedger\Rights\Duty;
use VividLedger\Rights\Reach;
use VividLedger\Rights\RoleFile;

/** Knocks at every route as everybody: nobody comes further than their role says, and no route is forgotten. */
final class RightsWalkTest extends AppTestCase
{
    /** Sees the tickets of a team, changes their own, and is trusted with nothing besides. */
    public const DESK = [
        'label' => 'Desk', 'duties' => [], 'fields' => ['ticket' => ['review' => 'read_only'], 'customer' => ['yearly_value' => 'hidden']],
        'reaches' => [
            'ticket' => ['read' => 'team', 'create' => 'own', 'change' => 'own', 'run' => 'own'], 'customer' => ['read' => 'own'],
            'agreement' => ['read' => 'all'],
        ],
    ];

    /** Each line of this rule leaves something that a route is about. */
    private const LEAVES_SOMETHING = [
        'name' => 'Leave something of everything', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
        'lines' => [
            ['kind' => 'give_task', 'to' => ['kind' => 'named', 'handle' => 'ines.okafor'], 'title' => 'Look'],
            ['kind' => 'send_message', 'to' => [['kind' => 'person', 'person' => ['kind' => 'owner']]], 'subject' => 'S',
                'body' => '<p>B</p>'],
            ['kind' => 'slip', 'to' => [['kind' => 'person', 'person' => ['kind' => 'named', 'handle' => 'ines.okafor']]],
                'subject' => 'Slip', 'body' => '<p>B</p>', 'asks' => [['kind' => 'text', 'label' => 'Well?']]],
            ['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Later',
                'at' => ['kind' => 'after', 'amount' => 3, 'unit' => 'day']],
        ],
    ];

    /** What a number in an address is of; the latest row about the ticket stands in for it. */
    private const ROWS = [
        'api/tasks/' => ['tasks', 'id'], 'api/messages/' => ['messages', 'id'], 'api/files/' => ['files', 'id'],
        'api/lines/' => ['scheduled_lines', 'id'], 'api/slips/' => ['slips', 'id'], 'api/ledger/' => ['entries', 'number'],
    ];

    public function test_every_route_is_listed_with_what_it_takes(): void
    {
        $there = array_map(static fn (OneRoute $route): string => "{$route->methods()[0]} {$route->uri()}", array_filter(
            array_values(Route::getRoutes()->getRoutes()),
            static fn (OneRoute $route): bool => $route->uri() !== '{any?}' && ! str_starts_with($route->uri(), '_'),
        ));
        $listed = array_merge(...array_values(self::listed()));
        self::assertSame([], array_values(array_diff($there, $listed)), 'give these routes a place in routes.yaml');
        self::assertSame([], array_values(array_diff($listed, $there)), 'these routes are gone');
        self::assertSame([], array_values(array_diff_assoc($listed, array_unique($listed))), 'each stands there once');
    }

    /** @return iterable<string, array{string, ?list<string>}> who, and for a token what it may */
    public static function actors(): iterable
    {
        yield 'nobody' => ['', null];
        yield 'who has left' => ['left', null];
        yield 'an administrator' => ['joost.perrin', null];
        yield 'a manager' => ['priya.lindqvist', null];
        yield 'a member' => ['milo.trent', null];
        yield 'an auditor' => ['odile.march', null];
        yield 'the desk, with their own' => ['lena.abara', null];
        yield 'the desk, with another team’s' => ['lena.abara out', null];
        yield 'a token for reading' => ['joost.perrin', [TokenScope::Reading->value]];
    }

    /** @param  ?list<string>  $scope */
    #[DataProvider('actors')]
    public function test_nobody_comes_further_than_they_may(string $who, ?array $scope): void
    {
        [$handle, $isOut] = [strtok($who, ' ') ?: '', str_ends_with($who, ' out')];
        $ids = $this->scene($isOut);
        $actor = match ($handle) {
            '' => null,
            'left' => tap($this->person('milo.trent'), static fn (Person $person): bool => $person->update(['active' => false])),
            default => $this->person($handle),
        };
        $token = $scope === null ? null : $actor?->createToken('script', $scope)->plainTextToken;
        $went = 0;
        foreach (self::listed() as $takes => $routes) {
            foreach ($takes === 'open' ? [] : $routes as $route) {
                [$method, $uri] = explode(' ', $route);
                $answer = $this->knock($actor, $token, $method, $this->address($uri, $ids));
                $expected = match (true) {
                    $actor === null || $handle === 'left' => [401],
                    // A token with less changes nothing, and never learns what else lets in.
                    $scope !== null && ($method !== 'GET' || in_array($uri, ['api/sign-ins', 'api/tokens'], true)) => [403],
                    default => $this->expected($actor, $takes, $uri, $isOut),
                };
                $status = $answer->getStatusCode();
                $said = "{$route}: {$status} ".substr((string) $answer->getContent(), 0, 200);
                $expected === null ? self::assertNotContains($status, [401, 403, 500], $said)
                    : self::assertContains($status, $expected, $said);
                $went++;
            }
        }
        self::assertGreaterThan(150, $went);
    }

    public function test_a_type_that_is_kept_from_somebody_is_not_there(): void
    {
        $ids = $this->scene(false);
        foreach (array_merge(...array_values(self::listed())) as $route) {
            [$method, $uri] = explode(' ', $route);
            if (str_starts_with($uri, 'api/records/{type}') && ! str_contains($uri, 'guards')) {
                $this->knock($this->person('lena.abara'), null, $method, $this->address($uri, ['type' => 'quote'] + $ids))
                    ->assertNotFound();
            }
        }
        $schema = $this->as('lena.abara', 'GET', 'schema')->assertOk();
        self::assertSame(['customer', 'agreement', 'ticket'], array_column($schema->json('types'), 'name'));
        self::assertStringNotContainsString('yearly_value', (string) $schema->getContent());
    }

    /** @return ?list<int> the answers there may be; null for any that is not a refusal */
    private function expected(Person $actor, string $takes, string $uri, bool $isOut): ?array
    {
        $answers = [];
        foreach (explode(' ', $takes) as $one) {
            $duty = Duty::tryFrom($one);
            $act = Act::tryFrom($one);
            $isOfRecord = str_contains($uri, '{id}') || str_contains($uri, '{number}');
            $answers[] = match (true) {
                $duty !== null => $actor->may($duty) ? null : [403],
                $one === 'all' => $actor->role === 'desk' ? [403] : null,
                $one === 'work' => $actor->mayWork() ? null : [403],
                // Whoever is not asked is told so, each in its own way; only nobody at all has no answer.
                $one === 'own' => [200, 201, 204, 302, 400, 403, 404, 409, 422],
                $act === null || ! $isOfRecord => $act !== null && $actor->rights()->reach($act, 'ticket') === Reach::None ? [403] : null,
                $actor->role !== 'desk' => $actor->rights()->reach($act, 'ticket') === Reach::None ? [403] : null,
                $isOut => $actor->rights()->reach($act, 'ticket') === Reach::None ? [403] : [404],
                default => $actor->rights()->reach($act, 'ticket') === Reach::None ? [403] : null,
            };
        }
        // The work of a token or of an auditor ends before it comes to a record.
        $refusals = array_values(array_filter($answers, is_array(...)));

        return $refusals === [] ? null : array_merge(...$refusals);
    }

    /**
     * A ticket with something of everything on it.
     *
     * @return array<string, int|string> what stands in an address, by name
     */
    private function scene(bool $isOut): array
    {
        StoredRole::query()->create(['name' => 'desk', 'position' => 9, 'version' => 1, 'file' => self::DESK]);
        $this->person('lena.abara')->update(['role' => 'desk']);
        self::assertSame([], RoleFile::read('desk', self::DESK, $this->app->make(SchemaStore::class)->schema())[1]);
        $rule = $this->inForce(self::LEAVES_SOMETHING);
        $ticket = $this->created('ticket', [
            'subject' => 'Palm leans', 'priority' => 'normal', 'status' => 'open', 'customer' => $this->customer()['id'],
            'owner' => $this->person($isOut ? 'teo.marsh' : 'lena.abara')->id,
        ], 'bram.castellan')['record']['id'];
        $this->actingAs($this->person('bram.castellan'), 'sanctum')->post("/api/records/ticket/{$ticket}/files", [
            'file' => \Illuminate\Http\UploadedFile::fake()->createWithContent('leaf.txt', 'a leaf'),
        ])->assertCreated();
        foreach (self::ROWS as $uri => [$table]) {
            self::assertTrue(DB::table($table)->where('record_id', $ticket)->exists(), "something for {$uri}");
        }

        return [
            'type' => 'ticket', 'id' => $ticket, 'field' => 'status', 'rule' => $rule, 'number' => $ticket, 'mark' => 'none',
            'role' => 'member',
        ];
    }

    /** @param  array<string, int|string>  $ids */
    private function address(string $uri, array $ids): string
    {
        foreach (self::ROWS as $start => [$table, $parameter]) {
            if (str_starts_with($uri, $start) && str_contains($uri, "{{$parameter}}")) {
                // Of the entries the one of the save, which rules answered; of what else there is any.
                $rows = DB::table($table)->where('record_id', $ids['id'])->where('record_type', 'ticket');
                $ids[$parameter] = (int) ($table === 'entries' ? $rows->where('kind', 'created')->value('id') : $rows->max('id'));
            }
        }
        if (str_starts_with($uri, 'api/rules/') || str_contains($uri, 'guards')) {
            $ids = str_contains($uri, 'guards') ? ['number' => $ids['rule']] + $ids : ['id' => $ids['rule']] + $ids;
        }

        return preg_replace_callback('/\{(\w+)\}/', static fn (array $found): string => (string) $ids[$found[1]], $uri) ?? $uri;
    }

    private function knock(?Person $actor, ?string $token, string $method, string $address): TestResponse
    {
        $this->flushControllers();
        $this->app->make('auth')->forgetGuards();
        DB::beginTransaction();
        try {
            if ($token !== null) {
                return $this->withToken($token)->json($method, "/{$address}");
            }
            if ($actor?->active === true) {
                // As they are now, and with nothing remembered of the last time.
                $this->actingAs(Person::query()->findOrFail($actor->id), 'sanctum');
            } elseif ($actor !== null) {
                $token = $actor->createToken('old', ['*'])->plainTextToken;

                return $this->withToken($token)->json($method, "/{$address}");
            }

            return $this->json($method, "/{$address}");
        } finally {
            DB::rollBack();
        }
    }

    /** @return array<string, list<string>> routes by what they take */
    private static function listed(): array
    {
        return Yaml::parseFile(dirname(__DIR__).'/Support/routes.yaml');
    }
}
