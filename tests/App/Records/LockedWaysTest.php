<?php

declare(strict_types=1);

namespace Tests\App\Records;

use App\Store\Actor;
use App\Store\Records\SaveRecord;
use App\Store\Types\SchemaStore;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use StandardWebhooks\Webhook;
use Tests\App\Support\Imports;
use Tests\App\Support\SignOffTestCase;
use VividLedger\SignOff\PassesLock;

/** A lock, against every way there is to write a record; and who passes it, each by name. */
final class LockedWaysTest extends SignOffTestCase
{
    use Imports;

    private const SET = ['kind' => 'set_fields',
        'set' => [['field' => 'subject', 'to' => ['kind' => 'value', 'value' => 'Past the lock']]]];

    public function test_no_way_to_write_leads_past_a_lock(): void
    {
        Queue::fake();
        $every = ['fires' => ['kind' => 'every_time']];
        $byHand = $this->inForce(
            ['name' => 'By hand', 'on' => 'quote', 'when' => ['kind' => 'by_hand'], 'lines' => [self::SET]] + $every,
        );
        $this->inForce(['name' => 'From its customer', 'on' => 'customer', 'when' => ['kind' => 'changed', 'fields' => ['plan']],
            'lines' => [
                ['on' => 'quote.customer'] + self::SET,
            ]] + $every);
        $this->inForce(['name' => 'Later', 'on' => 'quote', 'when' => ['kind' => 'created'], 'lines' => [
            ['at' => ['kind' => 'after', 'amount' => 1, 'unit' => 'day']] + self::SET,
        ]] + $every);
        $this->inForce(self::asking([['who' => self::CLEA, 'within' => ['amount' => 7, 'unit' => 'day']]], ['hold' => 'locked']));
        $customer = $this->customer();
        $this->as('ines.okafor', 'PATCH', 'types/quote/fields/customer', [
            'version' => (int) DB::table('record_types')->where('name', 'quote')->value('version'), 'onDelete' => 'along',
        ])->assertNoContent();
        $quote = $this->quote(['discount' => '0', 'customer' => $customer['id'], 'subject' => 'Locked ferns']);
        $twin = $this->quote(['discount' => '0', 'subject' => 'Free moss']);
        $id = $quote['id'];
        $this->change($quote, ['amount' => '900'], 'jonas.pike');
        $edit = (int) DB::table('entries')->where(['kind' => 'changed', 'record_type' => 'quote', 'record_id' => $id])->max('id');
        $bulk = $this->as('ines.okafor', 'POST', 'bulk', [
            'recordType' => 'quote', 'records' => [$id, $twin['id']], 'values' => ['valid_until' => '2027-01-31'],
        ])->assertCreated()->json('id');
        $this->work();
        $file = $this->uploaded('quote', "Subject,Amount\nLocked ferns,1\nFree moss,2\n", 1_000_000)['job']['id'];
        $this->tried($file, ['0' => 'subject', '1' => 'amount'], 'subject', 'update')->assertOk();
        $this->work();
        $hook = $this->as('ines.okafor', 'POST', 'hooks', [
            'name' => 'Door', 'recordType' => 'quote',
            'takes' => [['path' => 's', 'field' => 'subject'], ['path' => 'a', 'field' => 'amount']],
            'starts' => [], 'knownBy' => 'subject', 'mayCreate' => false, 'isOpen' => true,
        ])->assertCreated()->json();
        $quote = $this->change($this->now('quote', $id), ['discount' => '20'], 'jonas.pike')['record'];
        $this->settle();
        $kept = (array) DB::table('records_quote')->find($id);
        $version = ['version' => $kept['version']];
        $said = fn (string $method, string $path, array $body = []): string => (string) $this->as('ines.okafor', $method, $path,
            $body)->getContent();
        $merge = fn (array $stays, array $goes): string => $said('POST', "records/quote/{$stays['id']}/merge", [
            'version' => $this->now('quote', $stays['id'])['version'], 'other' => $goes['id'],
            'otherVersion' => $this->now('quote', $goes['id'])['version'], 'values' => ['subject' => 'One'],
        ]);
        $ways = [
            'a save' => fn () => $said('PATCH', "records/quote/{$id}", $version + ['values' => ['subject' => 'x']]),
            'several' => fn () => $said('POST', 'records/quote/several',
                ['records' => [['id' => $id, 'values' => ['subject' => 'x']] + $version]]),
            'deleting' => fn () => $said('DELETE', "records/quote/{$id}?version={$kept['version']}"),
            'deleting along' => fn () => $said('DELETE', "records/customer/{$customer['id']}?version=1"),
            'merged into it' => fn () => $merge($quote, $twin),
            'merged away' => fn () => $merge($twin, $quote),
            'reversing' => fn () => $said('POST', 'reversals', ['entries' => [$edit]]),
            'reversing by force' => fn () => $said('POST', 'reversals', ['entries' => [$edit], 'force' => true]),
            'undoing together' => function () use ($said, $bulk): string {
                $said('POST', "bulk/{$bulk}/undo");
                $this->work();

                return $said('GET', "bulk/{$bulk}");
            },
            'changing together' => function () use ($said, $id): string {
                $job = json_decode($said('POST', 'bulk', [
                    'recordType' => 'quote', 'records' => [$id], 'values' => ['subject' => 'x'],
                ]), true)['id'];
                $this->work();

                return $said('GET', "bulk/{$job}");
            },
            'an import' => function () use ($said, $file): string {
                $said('POST', "imports/{$file}/start", ['answered' => true]);
                $this->work();

                return $said('GET', "imports/{$file}");
            },
            'a hook' => function () use ($said, $hook): string {
                $body = (string) json_encode(['s' => 'Locked ferns', 'a' => 5]);
                $at = time();
                $this->call('POST', (string) parse_url($hook['url'], PHP_URL_PATH), server: [
                    'HTTP_WEBHOOK_ID' => 'h-1', 'HTTP_WEBHOOK_TIMESTAMP' => (string) $at, 'CONTENT_TYPE' => 'application/json',
                    'HTTP_WEBHOOK_SIGNATURE' => (new Webhook($hook['secret']))->sign('h-1', $at, $body),
                ], content: $body);

                return $said('GET', "hooks/{$hook['id']}/arrivals");
            },
            'by hand' => fn () => $said('POST', "rules/{$byHand}/run", ['recordType' => 'quote', 'records' => [$id]]),
            'a rule of another record' => function () use ($customer, $id): string {
                $this->change($customer, ['plan' => 'full_care']);

                return $this->told($id).$this->as('ines.okafor', 'GET', "records/customer/{$customer['id']}/account")->getContent();
            },
            'a line that falls due' => function () use ($id): string {
                $this->passTo('2026-11-27T00:00:00Z');

                return str_replace('held until the record is free', 'locked', $this->told($id));
            },
        ];
        foreach ($ways as $way => $tried) {
            self::assertStringContainsString('locked', $tried(), $way);
            self::assertEquals($kept, (array) DB::table('records_quote')->find($id), $way);
        }
        self::assertNull(DB::table('records_quote')->where('id', $twin['id'])->value('valid_until'), 'the other one is taken back');

        // Free again, each of them goes on.
        $this->say('clea.harrow', 'yes', $this->latest()->id);
        self::assertSame('Past the lock', DB::table('records_quote')->where('id', $id)->value('subject'), 'the line that waited');
        $this->as('ines.okafor', 'POST', 'reversals', ['entries' => [$edit]])->assertOk();
        self::assertSame('1000.00', DB::table('records_quote')->where('id', $id)->value('amount'));
    }

    public function test_whoever_passes_a_lock_is_named(): void
    {
        $this->inForce(self::asking([['who' => self::CLEA, 'within' => ['amount' => 7, 'unit' => 'day']]], ['hold' => 'locked']));
        $quote = $this->quote();
        $cause = (int) DB::table('entries')->max('id');
        $type = $this->app->make(SchemaStore::class)->schema()->types['quote'];
        foreach (PassesLock::cases() as $place => $pass) {
            $this->app->make(SaveRecord::class)->correct($type, $quote['id'], ['amount' => (string) $place], new Actor(null), $cause,
                $pass);
            self::assertStringContainsString($pass->said(), $this->told($quote['id']));
        }
        self::assertNull($this->say('clea.harrow', 'yes', $this->latest()->id));
        $this->app->make(SaveRecord::class)->correct($type, $quote['id'], ['amount' => '77'], new Actor(null), $cause, PassesLock::Leaving);
        self::assertSame(1, substr_count($this->told($quote['id']), PassesLock::Leaving->said()), 'there was nothing to pass');
    }

    public function test_only_what_is_named_passes(): void
    {
        $callers = [];
        foreach (new \RecursiveIteratorIterator(new \RecursiveDirectoryIterator(dirname(__DIR__, 3).'/app')) as $file) {
            foreach ($file->isFile() ? file($file->getPathname()) : [] as $line) {
                if (str_contains($line, 'records->write(')
                    && ! in_array($file->getBasename('.php'), ['SaveRecord', 'UnitOfWork', 'UnansweredWrite'], true)) {
                    $callers[] = $file->getBasename();
                }
            }
        }
        self::assertSame([], $callers, 'records are written by saves, by units of work and without an answer: nowhere else');
    }
}
