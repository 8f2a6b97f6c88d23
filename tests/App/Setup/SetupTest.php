<?php

declare(strict_types=1);

namespace Tests\App\Setup;

use App\Demo\Demo;
use App\Evidence\Setup\SetupFile;
use App\Evidence\Setup\SetupFolder;
use App\Evidence\Setup\SetupParts;
use App\Evidence\Setup\SetupPlan;
use App\Evidence\Setup\Setups;
use App\Models\Rules\StoredRule;
use App\Store\DomainError;
use Illuminate\Database\Events\QueryExecuted;
use Illuminate\Filesystem\Filesystem;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\App\Support\AppTestCase;
use Tests\App\Support\OwnDatabase;

/** A company’s setup as files: carried into another company, compared, and brought in whole or not at all. */
final class SetupTest extends AppTestCase
{
    use OwnDatabase;

    private bool $isInside = false;

    protected function tearDown(): void
    {
        if ($this->isInside) {
            $this->leaveOwnDatabase();
        }
        parent::tearDown();
    }

    public function test_all_of_larkmoss_comes_to_an_empty_company_and_says_the_same_there(): void
    {
        $texts = $this->larkmoss();
        self::assertGreaterThan(30, count($texts));
        self::assertSame([[], [], []], [$this->plan($texts)->changes, $this->plan($texts)->problems, $this->plan($texts)->besides]);
        $this->enterEmptyCompany();
        $plan = $this->plan($texts);
        self::assertSame([], $plan->problems);
        self::assertSame(0, StoredRule::query()->count(), 'a plan changes nothing');
        self::assertSame(['customer'], array_values(array_filter(
            array_map(static fn ($change): string => $change->name, $plan->changes), static fn (string $name): bool => $name === 'customer',
        )));
        $directory = sys_get_temp_dir().'/vivid-ledger-setup-'.getmypid();
        SetupFolder::write($directory, $texts);
        try {
            self::assertSame(0, Artisan::call('ledger:config', ['do' => 'apply', 'folder' => $directory]), Artisan::output());
            $this->forgetEverything();
            self::assertSame(0, Artisan::call('ledger:config', ['do' => 'plan', 'folder' => $directory]));
            self::assertStringContainsString(' 0 would change something', Artisan::output());
        } finally {
            (new Filesystem)->deleteDirectory($directory);
        }
        $again = $this->setups()->export();
        // The company brought a calendar of its own, which stays.
        unset($texts['setup.json'], $again['setup.json'], $again['calendars/working-hours.json']);
        self::assertSame(array_keys($texts), array_keys($again));
        foreach ($texts as $path => $text) {
            self::assertJsonStringEqualsJsonString($text, $again[$path], $path);
        }
        // And it works: a ticket that becomes urgent is answered by a rule that was carried over.
        $this->forgetEverything();
        $ticket = $this->ticket(['priority' => 'urgent', 'customer' => $this->created('customer', ['name' => 'Brine'])['record']['id']]);
        self::assertSame('needed', $ticket['record']['values']['review']);
    }

    /**
     * A setup that has just been taken out says nothing new, whatever rules there are: alike in name, empty in places, still
     * written on.
     */
    public function test_what_was_just_taken_out_says_nothing_new(): void
    {
        $keep = ['name' => 'Twice', 'on' => 'customer', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'], 'lines' => [
            ['kind' => 'comment', 'text' => 'One'],
        ]];
        $this->as('ines.okafor', 'POST', 'endpoints', ['name' => 'Books', 'url' => 'https://books.example/', 'method' => 'POST',
            'headers' => [], 'timeout' => 5, 'tries' => 2, 'atOnce' => 1, 'perMinute' => 60, 'mayBeInside' => false])->assertCreated();
        $this->inForce($keep);
        $this->inForce(['lines' => [['kind' => 'comment', 'text' => 'Another']]] + $keep);
        $this->inForce(['name' => 'Calls', 'lines' => [['kind' => 'call', 'endpoint' => 'Books', 'send' => [
            ['path' => 'name', 'name' => 'name'],
        ], 'keep' => []]]] + $keep);
        $this->as('ines.okafor', 'POST', 'rules', ['file' => ['name' => 'Unfinished', 'lines' => [['kind' => 'comment']]] + $keep])
            ->assertCreated();
        $texts = $this->setups()->export();
        $plan = $this->plan($texts);
        self::assertSame([[], []], [$plan->problems, array_map(static fn ($change): string => $change->path, $plan->changes)]);
        // Both of those that are called the same come to another company, and each goes on as itself.
        $second = array_values(array_filter($texts, static fn (string $text): bool => str_contains($text, '"Another"')))[0];
        self::assertSame(2, json_decode($second, true)['which']);
        $path = (string) array_search($second, $texts, true);
        $this->setups()->apply([$path => str_replace('"Another"', '"A third"', $second)] + $texts, $this->person('ines.okafor')->id);
        self::assertSame([1, 2], StoredRule::query()->where('name', 'Twice')->orderBy('id')->pluck('page')->all());
    }

    /** What does not fit is refused before anything is made; and what was made for something that breaks is taken away. */
    public function test_nothing_is_left_of_a_setup_that_does_not_come(): void
    {
        $this->leaveTheUsualOne();
        $this->app->make(Demo::class)->loadBase();
        $this->forgetEverything();
        $texts = $this->larkmoss();
        $path = self::path($texts, 'types/', 'ticket.json');
        $columns = fn (): array => DB::getSchemaBuilder()->getColumnListing('records_ticket');
        $before = $columns();
        $with = function (int $count) use ($texts, $path): array {
            $type = json_decode($texts[$path]);
            for ($nth = 0; $nth < $count; $nth++) {
                $type->fields->{"more_{$nth}"} = ['label' => "More {$nth}", 'type' => 'text'];
            }

            return [$path => (string) json_encode($type)] + $texts;
        };
        $plan = $this->plan($with(1200));
        self::assertSame(["{$path}#/fields"], array_column($plan->problems, 'at'));
        $this->assertThrows(fn () => $this->setups()->apply($with(1200), $this->person('ines.okafor')->id), DomainError::class);
        self::assertSame($before, $columns());
        DB::listen(static function (QueryExecuted $query): void {
            if (str_contains($query->sql, '`entries`') && in_array('setup_applied', $query->bindings, true)) {
                throw new \RuntimeException('the power went');
            }
        });
        $this->assertThrows(fn () => $this->setups()->apply($with(8), $this->person('ines.okafor')->id), \RuntimeException::class);
        self::assertSame($before, $columns());
    }

    public function test_an_odd_folder_is_said_to_be_one(): void
    {
        $directory = sys_get_temp_dir().'/vivid-ledger-odd-'.getmypid();
        $files = new Filesystem;
        try {
            SetupFolder::write($directory, $this->larkmoss());
            mkdir("{$directory}/rules/zz.json");
            self::assertSame(0, Artisan::call('ledger:config', ['do' => 'plan', 'folder' => $directory]), Artisan::output());
            self::assertSame(0, Artisan::call('ledger:config', ['do' => 'export', 'folder' => $directory]));
            foreach (['export' => "{$directory}/setup.json", 'plan' => "{$directory}/none", 'apply' => '/dev/null'] as $do => $folder) {
                self::assertSame(1, Artisan::call('ledger:config', ['do' => $do, 'folder' => $folder]));
                self::assertMatchesRegularExpression('/cannot be written|There is no setup here/', Artisan::output());
            }
        } finally {
            $files->deleteDirectory($directory);
        }
    }

    public function test_the_published_schemas_are_those_that_are_held_against(): void
    {
        foreach (SetupParts::all() as $part) {
            $path = base_path('docs/schema/'.SetupFile::name($part));
            self::assertSame(SetupFile::published($part), file_get_contents($path), 'Run: php artisan ledger:rule-schema');
        }
    }

    public function test_a_plan_says_rule_by_rule_what_would_change(): void
    {
        $this->leaveTheUsualOne();
        $this->app->make(Demo::class)->loadBase();
        $this->forgetEverything();
        $this->clockAt(self::NOW);
        $texts = $this->larkmoss();
        $path = $this->pathOf($texts, 'Urgent ticket, tell the lead');
        $document = json_decode($texts[$path]);
        $document->rule->onlyIf->of[0]->value = 'high';
        $document->status = 'paused';
        unset($document->rule->proofs);
        $texts[$path] = (string) json_encode($document);
        $type = json_decode($texts[self::path($texts, 'types/', 'ticket.json')]);
        $type->fields->shade = ['label' => 'Shade', 'type' => 'text'];
        unset($type->fields->priority->choices->low);
        $texts[self::path($texts, 'types/', 'ticket.json')] = (string) json_encode($type);
        unset($texts[$this->pathOf($texts, 'Close the books on a ticket')]);
        $plan = $this->plan($texts);
        self::assertSame([], $plan->problems);
        $said = array_merge(...array_map(static fn ($change): array => $change->said, $plan->changes));
        self::assertSame([
            'Priority says something else: choices.', 'New field Shade.',
            'Gone: Priority is Urgent', 'New: Priority is High', 'Its proofs differ.', 'It is then paused.',
        ], $said);
        self::assertSame(['Rules: ticket: Close the books on a ticket'], $plan->besides);
        $this->setups()->apply($texts, $this->person('ines.okafor')->id);
        $this->forgetEverything();
        $rule = StoredRule::query()->where('name', 'Urgent ticket, tell the lead')->sole();
        self::assertSame(['paused', 2], [$rule->status->value, $rule->page]);
        self::assertContains('shade', array_column($this->as('ines.okafor', 'GET', 'schema')->json('types.4.fields'), 'name'));
        self::assertTrue(DB::table('record_types')->where('name', 'ticket')->value('definition') !== null);
        self::assertStringContainsString('"low":{"retired":true', (string) DB::table('record_types')->where('name', 'ticket')
            ->value('definition'));
    }

    /** @return iterable<string, array{\Closure(array<string, string>): array<string, string>, string}> */
    public static function faults(): iterable
    {
        $change = static fn (string $path, \Closure $of): \Closure => static function (array $texts) use ($path, $of): array {
            $path = self::path($texts, $path);
            $document = json_decode($texts[$path]);
            $of($document);
            $texts[$path] = (string) json_encode($document);

            return $texts;
        };
        yield 'a later version' => [$change('setup.json', static fn (\stdClass $head) => $head->format = 9), 'setup.json#/format'];
        yield 'no version' => [$change('setup.json', static fn (\stdClass $head) => $head->format = 'one'), 'setup.json#/format'];
        yield 'no JSON' => [static fn (array $texts): array => [self::path($texts, 'ticket.json') => '{"name": '] + $texts, 'ticket.json'];
        yield 'something else in a file' => [
            $change('ticket.json', static fn (\stdClass $type) => $type->wings = 2), 'ticket.json',
        ];
        yield 'a kind that cannot change' => [
            $change('ticket.json', static fn (\stdClass $type) => $type->fields->cost->type = 'text'), 'ticket.json#/fields/cost/type',
        ];
        yield 'a field that leads nowhere' => [
            $change('ticket.json', static fn (\stdClass $type) => $type->fields->boat = [
                'label' => 'Boat', 'type' => 'reference', 'target' => 'boat',
            ]), 'ticket.json#/fields/boat/target',
        ];
        yield 'a formula that cannot be read' => [
            $change('ticket.json', static fn (\stdClass $type) => $type->fields->sum = [
                'label' => 'Sum', 'type' => 'number', 'formula' => 'cost +',
            ]), 'ticket.json#/fields/sum/formula',
        ];
        yield 'a role that goes too far' => [$change('member.json', static function (\stdClass $role): void {
            [$role->duties, $role->reaches] = [['write_rules'], ['ticket' => ['read' => 'own']]];
        }), 'member.json#/duties/0'];
        yield 'a rule about a field that is gone' => [
            $change('urgent-ticket', static fn (\stdClass $rule) => $rule->rule->onlyIf->of[0]->field = 'wings'),
            '#/rule/onlyIf/of/0/field',
        ];
        yield 'a letter with an unknown piece' => [
            $change('letters/', static fn (\stdClass $letter) => $letter->subject = '{wings}'), '#/subject',
        ];
        yield 'two files about the same' => [
            static fn (array $texts): array => $texts + ['types/twin.json' => $texts[self::path($texts, 'types/', 'ticket.json')]],
            'types/twin.json',
        ];
    }

    /** @param  \Closure(array<string, string>): array<string, string>  $spoil */
    #[DataProvider('faults')]
    public function test_one_fault_keeps_all_of_it_out(\Closure $spoil, string $at): void
    {
        $texts = $this->larkmoss();
        $type = json_decode($texts[self::path($texts, 'types/', 'customer.json')], true);
        $texts[self::path($texts, 'types/', 'customer.json')] = (string) json_encode(['label' => 'Client'] + $type);
        $before = $this->state();
        try {
            $this->setups()->apply($spoil($texts), $this->person('ines.okafor')->id);
            self::fail('It should have been refused.');
        } catch (DomainError $refused) {
            $places = array_column($refused->problems, 'at');
            self::assertNotSame([], array_filter($places, static fn (string $place): bool => str_contains($place, $at)),
                implode(', ', $places));
        }
        self::assertSame($before, $this->state());
    }

    public function test_proofs_have_to_hold_or_it_is_said_that_they_need_not(): void
    {
        $texts = $this->larkmoss();
        $path = $this->pathOf($texts, 'Urgent ticket, tell the lead');
        $document = json_decode($texts[$path]);
        self::assertCount(1, $document->rule->proofs);
        $document->rule->lines[0]->set[0]->to->value = 'done';
        $texts[$path] = (string) json_encode($document);
        $problem = $this->plan($texts)->problems[0];
        self::assertSame(["{$path}#/rule/proofs", 'proof_broken'], [$problem['at'], $problem['code']]);
        self::assertStringContainsString('Review set to Needed” is expected, and it comes to “', $problem['message']);
        self::assertStringContainsString('Review set to Done”.', $problem['message']);
        $by = $this->person('ines.okafor')->id;
        self::assertSame([], $this->setups()->plan($texts, $by, true)->problems);
        $this->setups()->apply($texts, $by, true);
        self::assertSame(2, StoredRule::query()->where('name', 'Urgent ticket, tell the lead')->value('page'));
    }

    public function test_a_rule_that_somebody_is_writing_is_not_written_over(): void
    {
        $texts = $this->larkmoss();
        $rule = StoredRule::query()->where('name', 'Urgent ticket, tell the lead')->sole();
        $this->as('ines.okafor', 'PUT', "rules/{$rule->id}/draft", [
            'version' => $rule->draft_version, 'file' => ['name' => 'Half written'] + $this->demoFile('010-urgent-ticket'),
        ])->assertOk();
        $path = $this->pathOf($texts, 'Urgent ticket, tell the lead');
        $document = json_decode($texts[$path]);
        $document->rule->onlyIf->of[0]->value = 'high';
        unset($document->rule->proofs);
        $texts[$path] = (string) json_encode($document);
        self::assertSame(['being_written'], array_column($this->plan($texts)->problems, 'code'));
    }

    public function test_as_an_archive_by_the_api_and_only_for_those_who_set_up(): void
    {
        $texts = $this->larkmoss();
        $answer = $this->as('ines.okafor', 'GET', 'setup')->assertOk();
        $file = (string) tempnam(sys_get_temp_dir(), 'zip');
        file_put_contents($file, $answer->getContent());
        self::assertEqualsCanonicalizing(array_keys($texts), array_keys(SetupFolder::unpack($file)));
        $sent = fn (string $path, string $name = 'setup.zip') => $this->actingAs($this->person('ines.okafor'), 'sanctum')
            ->post("/api/{$path}", [
                'file' => new \Illuminate\Http\UploadedFile($file, $name, test: true),
            ], ['Accept' => 'application/json']);
        $sent('setup/plan')->assertOk()->assertJsonPath('same', count($texts) - 1)->assertJsonPath('changes', []);
        $before = $this->state();
        $sent('setup/apply')->assertOk()->assertJsonPath('problems', []);
        self::assertSame($before, $this->state(), 'what is so already is left alone');
        file_put_contents($file, substr((string) file_get_contents($file), 0, 900));
        $this->assertRefused($sent('setup/plan'), 422, 'no_setup');
        file_put_contents($file, 'no archive');
        $this->assertRefused($sent('setup/apply'), 422, 'no_setup');
        $this->as('tomas.weld', 'GET', 'setup')->assertForbidden();
        unlink($file);
    }

    /** @return array<string, string> Larkmoss with rules in force, one of them with a proof */
    private function larkmoss(): array
    {
        $this->app->make(Demo::class)->loadKept();
        foreach (['010-urgent-ticket', '050-closed', '100-ticket-received', '140-discount-board', '320-renewal', '330-visit-overdue',
            '340-morning-list', '386-customer-into-the-books', '388-ring-back'] as $name) {
            $this->inForce($this->demoFile($name));
        }
        foreach (['080-costly-ticket.draft', '030-waiting-since'] as $draft) {
            $this->as('ines.okafor', 'POST', 'rules', ['file' => $this->demoFile($draft)])->assertCreated();
        }
        $rule = StoredRule::query()->where('name', 'Urgent ticket, tell the lead')->sole();
        $this->as('ines.okafor', 'POST', "rules/{$rule->id}/proofs", [
            'name' => 'An urgent ticket is looked at', 'file' => $this->demoFile('010-urgent-ticket'), 'record' => ['pick' => 'made_up'],
        ])->assertSuccessful();

        return $this->setups()->export();
    }

    private function enterEmptyCompany(): void
    {
        $usual = $this->leaveTheUsualOne();
        Artisan::call('company:create',
            ['name' => 'Fern', 'person' => 'Ines Okafor', 'email' => 'ines@fern.example', '--zone' => 'Europe/Berlin']);
        // The same people work there, under numbers of their own.
        DB::statement("INSERT INTO people (handle, name, email, password, role, team, time_zone, active)
            SELECT handle, name, email, password, role, team, time_zone, active FROM `{$usual}`.people WHERE handle <> 'ines.okafor'");
        DB::statement("UPDATE people p JOIN `{$usual}`.people o ON o.handle = p.handle JOIN `{$usual}`.people m ON m.id = o.manager_id
            JOIN people n ON n.handle = m.handle SET p.manager_id = n.id");
        DB::table('company')->update(['fallback_person_id' => $this->person('tomas.weld')->id]);
        $this->forgetEverything();
        $this->clockAt(self::NOW);
    }

    /** Columns are made on the way, which no transaction takes back. */
    private function leaveTheUsualOne(): string
    {
        $usual = (string) config('database.connections.'.config('database.default').'.database');
        DB::rollBack();
        $this->enterOwnDatabase();
        $this->isInside = true;

        return $usual;
    }

    /** @param  array<string, string>  $texts */
    private function pathOf(array $texts, string $name): string
    {
        return (string) array_key_first(array_filter($texts,
            static fn (string $text): bool => str_contains($text, "\"name\": \"{$name}\"")));
    }

    /** @param  array<string, string>  $texts */
    private static function path(array $texts, string ...$parts): string
    {
        return array_values(array_filter(
            array_keys($texts),
            static fn (string $path): bool => array_filter($parts, static fn (string $part): bool => ! str_contains($path, $part)) === [],
        ))[0];
    }

    /** @param  array<string, string>  $texts */
    private function plan(array $texts): SetupPlan
    {
        return $this->setups()->plan($texts, $this->person('ines.okafor')->id);
    }

    private function setups(): Setups
    {
        return $this->app->make(Setups::class);
    }

    private function state(): string
    {
        return (string) json_encode([
            DB::table('record_types')->get(), DB::table('roles')->get(), DB::table('rules')->get(), DB::table('letters')->get(),
            DB::table('entries')->count(), DB::table('proofs')->count(),
        ]);
    }
}
