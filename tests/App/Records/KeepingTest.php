<?php

declare(strict_types=1);

namespace Tests\App\Records;

use App\Models\Columns;
use App\Models\Operations\WorkerProcess;
use App\Store\Actor;
use App\Store\Records\SaveRecord;
use App\Store\Rules\RuleStore;
use App\Store\Types\SchemaStore;
use App\Work\Operations\Heartbeat;
use App\Work\Operations\Housekeeping;
use App\Work\Rules\RulePublisher;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\AppTestCase;
use Tests\Core\Support\Stories;
use VividLedger\Record\Value;
use VividLedger\Schema\FieldType;

/** What is kept: as it was given, with no more statements than it takes, and swept away when it is old. */
final class KeepingTest extends AppTestCase
{
    public function test_values_of_every_type_come_back_from_the_database_as_they_went_in(): void
    {
        $schema = $this->app->make(SchemaStore::class)->schema();
        $save = $this->app->make(SaveRecord::class);
        $actor = new Actor($this->person('ines.okafor')->id);
        $seen = [];
        for ($seed = 1; $seed <= 60; $seed++) {
            $stories = new Stories($seed, $schema, ['ines.okafor'], ['customer' => [$this->customer()['id']], 'contact' => [0]]);
            foreach (['customer', 'ticket'] as $name) {
                $type = $schema->types[$name];
                $values = [];
                foreach ($type->ownFields() as $field) {
                    $values[$field->name] = $field->target === 'contact' ? null : $stories->value($field);
                    $seen[$field->type->value] = ($seen[$field->type->value] ?? false) || $values[$field->name] !== null;
                }
                $values[$type->title] = 'Ünïcödé 🌿 '.$seed;
                $saved = $save->create($type, $values, $actor)->record;
                $kept = Columns::record($type, DB::selectOne("SELECT * FROM records_{$name} WHERE id = ?", [$saved->id]));
                self::assertSame($saved->values, $kept->values);
                foreach ($values as $field => $value) {
                    self::assertSame(Value::of($type->fields[$field], $value), $kept->value($field), $field);
                }
            }
        }
        unset($seen[FieldType::Reference->value]);
        self::assertNotContains(false, $seen, 'every type has to have held something');
    }

    public function test_a_save_takes_the_same_statements_however_many_rules_do_not_watch_it(): void
    {
        $this->inForce($this->demoFile('010-urgent-ticket'));
        $count = function (): int {
            $ticket = $this->ticket()['record'];
            DB::flushQueryLog();
            DB::enableQueryLog();
            $this->app->make(SaveRecord::class)->change(
                $this->app->make(SchemaStore::class)->schema()->types['ticket'],
                $ticket['id'],
                1,
                ['priority' => 'urgent'],
                new Actor(1),
            );
            DB::disableQueryLog();

            return count(DB::getQueryLog());
        };
        // The first save of a program does not know yet what such a save goes on to ask.
        $first = $count();
        $few = $count();
        self::assertSame($first - 1, $few);
        $by = $this->person('ines.okafor')->id;
        for ($rule = 0; $rule < 60; $rule++) {
            $file = [
                'name' => "Idle {$rule}", 'when' => ['kind' => 'changed', 'fields' => [['hours', 'cost', 'photos'][$rule % 3]]],
            ] + $this->demoFile('030-waiting-since');
            $this->app->make(RulePublisher::class)->publish($this->app->make(RuleStore::class)->draft($file, $by), 1, $by);
        }
        self::assertSame($few, $count());
        self::assertLessThanOrEqual(10, $few, 'Reads, one write for each table, and nothing repeated.');
    }

    public function test_a_related_record_is_read_once_in_a_save(): void
    {
        foreach (['one', 'two', 'three'] as $name) {
            $this->inForce(['name' => $name, 'fires' => ['kind' => 'becomes_true']] + $this->demoFile('020-full-care-first'));
        }
        $customer = $this->customer(plan: 'full_care')['id'];
        DB::flushQueryLog();
        DB::enableQueryLog();
        $this->ticket(['customer' => $customer]);
        $reads = array_filter(
            DB::getQueryLog(),
            static fn (array $query): bool => str_starts_with($query['query'], 'SELECT * FROM `records_customer`'),
        );
        DB::disableQueryLog();

        self::assertCount(1, $reads);
    }

    public function test_processes_are_seen_while_they_live(): void
    {
        $heartbeat = new Heartbeat('worker');
        $heartbeat->beat(7);
        $heartbeat->beat(8);
        $shown = $this->as('odile.march', 'GET', 'company')->json('processes');
        self::assertSame(
            [['worker', 7, true]],
            array_map(static fn (array $process): array => [$process['kind'], $process['done'], $process['alive']], $shown),
        );
        DB::table('heartbeats')->update(['beat_at' => gmdate('Y-m-d H:i:s', time() - 60)]);
        self::assertFalse($this->as('odile.march', 'GET', 'company')->json('processes.0.alive'));
        $heartbeat->end();
        self::assertSame([], $this->as('odile.march', 'GET', 'company')->json('processes'));
    }

    public function test_what_is_old_is_swept_away_and_the_rest_stays(): void
    {
        $lena = $this->person('lena.abara');
        $kept = $lena->createToken('for ever')->accessToken->id;
        $lena->createToken('over', ['*'], now()->subDay());
        foreach (['old' => time() - 86400 * 2, 'new' => time()] as $id => $active) {
            DB::table('sessions')->insert(['id' => $id, 'payload' => '', 'last_activity' => $active]);
            DB::table('cache')->insert(['key' => $id, 'value' => '', 'expiration' => $active + 60]);
            WorkerProcess::factory()->create(['process' => $id, 'beat_at' => gmdate('Y-m-d H:i:s', $active)]);
        }
        self::assertSame(2, $this->app->make(Housekeeping::class)->sweep());
        Artisan::call('model:prune', ['--model' => [WorkerProcess::class]]);
        Artisan::call('sanctum:prune-expired', ['--hours' => 0]);
        self::assertSame([['new'], ['new'], ['new'], [$kept]], [
            DB::table('sessions')->pluck('id')->all(), DB::table('cache')->pluck('key')->all(), DB::table('heartbeats')->pluck('process')
                ->all(), DB::table('personal_access_tokens')->pluck('id')->all(),
        ]);
    }
}
