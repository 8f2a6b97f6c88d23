<?php

declare(strict_types=1);

namespace App\Demo;

use App\Evidence\Rehearsal\Proofs;
use App\Models\People\Person;
use App\Models\Rules\StoredRule;
use App\Models\Setup\CompanySettings;
use App\Models\Shared;
use App\Store\HouseClock;
use App\Store\Inbound\HookStore;
use App\Store\Library\CalendarKeep;
use App\Store\Library\KeptStore;
use App\Store\Lists\ViewStore;
use App\Store\Outbound\EndpointStore;
use App\Store\People\PeopleRepository;
use App\Store\Rules\RuleFile;
use App\Store\Rules\RuleOrder;
use App\Store\Rules\RuleStore;
use App\Store\Types\SchemaStore;
use App\Work\Outbound\BackOfficeDoor;
use App\Work\Rules\RulePublisher;
use Closure;
use Illuminate\Support\Facades\Hash;
use Symfony\Component\Yaml\Yaml;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Rule\RuleStatus;

/** Loads the demo company from the files in database/demo. */
final readonly class Demo
{
    /** Rules that had been tried and were set aside again. */
    private const PAUSED = ['070-key-account'];

    /** So many of its cases are kept. */
    private const PROOFS = 5;

    private const PROVEN = ['140-discount-board', '150-discount-lead', '310-chase-silent-customer'];

    public function __construct(
        private SchemaStore $schemas,
    ) {
    }

    public function isLoaded(): bool
    {
        return CompanySettings::query()->exists();
    }

    /** @return array<string, mixed> */
    public static function company(): array
    {
        return self::file('company.yaml');
    }

    /** Company, people, record types and rules, but no records. */
    public function loadBase(): void
    {
        $company = self::company();
        $this->people((string) $company['password']);
        $fallback = Person::query()->where('handle', $company['fallback_person'])->firstOrFail();
        CompanySettings::rows()->insert([
            'id' => 1, 'name' => $company['name'], 'time_zone' => $company['time_zone'], 'fallback_person_id' => $fallback->id,
        ]);
        foreach (['customer', 'contact', 'quote', 'agreement', 'ticket', 'partner', 'visit'] as $type) {
            $this->schemas->add($type, self::file("record-types/{$type}.yaml"));
        }
    }

    /** Puts the rules in force by the same way a person does; those whose file says "draft" stay drafts. */
    public function loadRules(): void
    {
        $this->loadKept();
        $this->putInForce('[!3]*');
    }

    /** Rules that time sets off, and chases: the company wrote them in the last months. */
    public function loadRulesInTime(): void
    {
        $this->putInForce('3*');
    }

    /** @return array<string, mixed> */
    private static function ruleFile(string $path): array
    {
        return app(RuleFile::class)->plain(json_decode((string) file_get_contents($path), true, 512, JSON_THROW_ON_ERROR));
    }

    private function putInForce(string $which): void
    {
        $rules = app(RuleStore::class);
        $by = Person::query()->where('role', 'administrator')->orderBy('id')->firstOrFail()->id;
        foreach (glob(database_path("demo/rules/{$which}.json")) ?: [] as $path) {
            $file = self::ruleFile($path);
            $id = $rules->draft($file, $by);
            if (! str_ends_with($path, '.draft.json')) {
                app(RulePublisher::class)->publish($id, 1, $by);
            }
            $set = self::company()['either_or'][basename($path, '.json')] ?? null;
            if ($set !== null) {
                app(RuleOrder::class)->stand($id, $set, $by);
            }
        }
    }

    /** Letters, named conditions, ladders, routes and working calendars. */
    public function loadKept(): void
    {
        $kept = self::file('kept.yaml');
        $types = $this->schemas->schema()->types;
        $by = Person::query()->where('role', 'administrator')->orderBy('id')->firstOrFail()->id;
        foreach ($kept['letters'] as $letter) {
            app(KeptStore::class)->keepLetter($types[$letter['on']], null, null, $letter['name'], $letter['subject'], $letter['body'], $by);
        }
        foreach ($kept['ladders'] as $ladder) {
            app(KeptStore::class)->keepLadder(null, null, $ladder['name'], $ladder['rungs']);
        }
        foreach ($kept['routes'] as $route) {
            app(KeptStore::class)->keepRoute($types[$route['on']], null, null, $route['name'], $route['steps']);
        }
        foreach ($kept['slips'] as $slip) {
            app(KeptStore::class)->keepSlip(
                $types[$slip['on']], null, null, $slip['name'], $slip['subject'], $slip['body'], $slip['asks'], $by,
            );
        }
        foreach ($kept['endpoints'] as $endpoint) {
            app(EndpointStore::class)->keep(null, null, [
                'name' => $endpoint['name'], 'url' => (BackOfficeDoor::url() ?: 'http://127.0.0.1:9').$endpoint['path'],
                'method' => 'POST', 'headers' => [], 'timeout' => 10, 'tries' => 8, 'atOnce' => 4, 'perMinute' => 600,
                'mayBeInside' => true, 'secretHeaders' => ['Authorization' => 'Bearer '.BackOfficeDoor::secret()], 'signingSecret' => null,
            ]);
        }
        foreach ($kept['hooks'] as $hook) {
            app(HookStore::class)->keep(null, null, [
                'name' => $hook['name'], 'recordType' => $hook['on'], 'takes' => $hook['takes'], 'starts' => $hook['starts'],
                'knownBy' => $hook['known_by'], 'mayCreate' => true, 'isOpen' => true, 'freshSecret' => false,
            ]);
        }
        foreach ($kept['calendars'] as $calendar) {
            app(CalendarKeep::class)->keep(
                null,
                null,
                $calendar['name'],
                $calendar['time_zone'],
                $calendar['hours'],
                $calendar['holidays'],
                $calendar['company'],
                $calendar['teams'],
                [],
            );
        }
        foreach ($kept['conditions'] as $condition) {
            app(KeptStore::class)->keepCondition($types[$condition['on']], null, null, $condition['name'], $condition['file']);
        }
    }

    /** What was paused is so at the end of the history. */
    public function pauseRules(): void
    {
        foreach (self::PAUSED as $name) {
            $file = self::ruleFile(database_path("demo/rules/{$name}.json"));
            $id = (int) StoredRule::rows()->where('name', $file['name'])->value('id');
            app(RulePublisher::class)->move(
                $id,
                RuleStatus::Paused,
                Person::query()->where('role', 'administrator')->orderBy('id')->firstOrFail()->id,
            );
        }
    }

    /** Views of the lists that everybody has. */
    public function shareViews(ViewStore $views): void
    {
        $by = Person::query()->where('role', 'administrator')->orderBy('id')->firstOrFail();
        foreach (self::file('views.yaml') as $type => $all) {
            foreach ($all as $view) {
                $views->add($this->schemas->schema()->types[$type], $by, $view['name'], Shared::Everybody, [
                    'columns' => $view['columns'] ?? [], 'sort' => $view['sort'] ?? [], 'group' => $view['group'] ?? null,
                    'sums' => $view['sums'] ?? [], 'layout' => $view['layout'] ?? 'table', 'filter' => $view['filter'] ?? null,
                    'search' => '',
                ]);
            }
        }
    }

    /** Somebody is away for the week, and what waits for them is their deputy's. */
    public function sendAway(HouseClock $clock): void
    {
        $away = self::company()['away'];
        $person = Person::query()->where('handle', $away['person'])->firstOrFail();
        $now = $clock->now();
        app(PeopleRepository::class)->goesAway($person->id, $now, $now->modify("+{$away['days']} days"), null, $person->id);
    }

    /** Some rules are held by proofs: the cases at their boundaries. */
    public function keepProofs(): void
    {
        $by = Person::query()->where('role', 'administrator')->orderBy('id')->firstOrFail()->id;
        foreach (self::PROVEN as $name) {
            $file = self::ruleFile(database_path("demo/rules/{$name}.json"));
            $row = StoredRule::query()->where('name', $file['name'])->firstOrFail();
            $rule = app(RuleReader::class)->read($file, $row->id, (int) $row->page, $row->either_or)->rule
                ?? throw new \LogicException("The demo rule {$name} does not read.");
            foreach (array_slice(app(Proofs::class)->proposed($rule, $by), 0, self::PROOFS) as $case) {
                app(Proofs::class)->keep($row->id, $rule, $case['name'], $case['script'], $by);
            }
        }
    }

    /** @param  Closure(int, int): void  $progress told how much of how much is done */
    public function loadHistory(\DateTimeImmutable $until, Closure $progress): void
    {
        app(ServiceHistory::class)->play(
            $until,
            self::file('words.yaml'),
            (int) self::company()['seed'],
            $this->loadRulesInTime(...),
            $progress,
        );
    }

    /** @return array<string, mixed> */
    private static function file(string $name): array
    {
        return Yaml::parseFile(database_path("demo/{$name}"));
    }

    private function people(string $password): void
    {
        // Hashed once: forty times the same password would only cost time.
        $hash = Hash::make($password);
        $ids = [];
        foreach (self::file('people.yaml') as $handle => $person) {
            [$name, $role, $team, $manager, $zone] = $person;
            $ids[$handle] = (int) Person::rows()->insertGetId([
                'handle' => $handle, 'name' => $name, 'email' => "{$handle}@larkmoss.example", 'password' => $hash, 'role' => $role,
                'team' => $team,
                'time_zone' => $zone, 'phone' => '+49 30 5552 '.(1000 + count($ids)), 'manager_id' => $manager === null ? null
                    : $ids[$manager],
                'sign_off_limit' => $person[5] ?? null, 'joined_at' => gmdate('Y-m-d H:i:s'),
            ]);
        }
        foreach (self::file('people.yaml') as $handle => $person) {
            if (isset($person[6])) {
                Person::rows()->where('id', $ids[$handle])->update(['deputy_id' => $ids[$person[6]]]);
            }
        }
    }
}
