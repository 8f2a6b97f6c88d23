<?php

declare(strict_types=1);

namespace Tests\App\Operations;

use App\Store\Ledger\Sealer;
use App\Store\Ledger\Verifier;
use Illuminate\Support\Facades\DB;
use Symfony\Component\Process\Process;
use Tests\App\Support\RunsTogether;
use Tests\App\Support\SignOffTestCase;

/**
 * A company at work in eight processes while its workers run: tickets answer on their customers, quotes are locked, decided and reversed,
 * what rules name is altered, somebody leaves and comes back, and hours pass. Whatever came of it adds up.
 */
final class SoakTest extends SignOffTestCase
{
    use RunsTogether;

    private const ACTS = 40;

    private const MILO = ['kind' => 'named', 'handle' => 'milo.trent'];

    public function test_whatever_comes_of_it_adds_up(): void
    {
        $this->clockAt('now');
        [$counts, $later] = $this->rules();
        for ($nth = 0; $nth < 3; $nth++) {
            $this->ticket(['customer' => $this->customer("soaked {$nth}")['id']]);
            $this->quote(['discount' => '5', 'customer' => $this->customer("dry {$nth}")['id']]);
        }
        $worker = new Process([PHP_BINARY, 'artisan', 'ledger:work', 'lines', 'sweep'], base_path(), [
            'DB_DATABASE' => (string) getenv('DB_DATABASE'),
        ], timeout: null);
        $worker->start();
        $answers = [];
        foreach ($this->together(['tests/App/Support/soak.php', '1', (string) self::ACTS]) as $printed) {
            foreach (json_decode($printed, true, 8, JSON_THROW_ON_ERROR) as $said => $count) {
                $answers[$said] = ($answers[$said] ?? 0) + $count;
            }
        }
        $milo = $this->person('milo.trent')->id;
        if ($this->person('milo.trent')->left_at === null) {
            $this->as('ines.okafor', 'POST', "people/{$milo}/leave", ['to' => 'lena.abara'])->assertNoContent();
        }
        DB::table('company')->increment('clock_offset', 7200);
        $pencilled = static fn (): bool => DB::table('scheduled_lines')->where(['rule_id' => $later, 'status' => 'pencilled'])->exists();
        for ($until = microtime(true) + 30; $pencilled(); usleep(50_000)) {
            self::assertLessThan($until, microtime(true), 'Lines stay undone. '.$worker->getErrorOutput());
        }
        self::assertTrue($worker->isRunning(), $worker->getErrorOutput());
        $worker->stop(5);
        self::assertSame([], array_values(array_filter(array_keys($answers),
            static fn (string $said): bool => preg_match('/^\d/', $said) === 1)));
        self::assertGreaterThan(3 * self::ACTS, $answers['taken']);
        $this->versionsFollow();
        $this->eachCounted($counts);
        $this->eachLineOnce($later);
        $this->nothingPastALock();
        self::assertSame([0, 0], [
            DB::table('tasks')->where(['assignee_id' => $milo, 'status' => 'open'])->count(),
            DB::table('sign_off_seats')->where(['person_id' => $milo, 'state' => 'waiting'])->count(),
        ], 'nothing waits for whoever has left');
        do {
            $sealed = $this->app->make(Sealer::class)->seal((int) DB::table('entries')->max('id'));
        } while ($sealed > 0);
        $verifier = $this->app->make(Verifier::class);
        self::assertSame([true, []], [$verifier->verify([]), $verifier->findings]);
    }

    /** @return array{int, int} what counts on the customer, and what comes an hour later */
    private function rules(): array
    {
        $letter = ['recordType' => 'ticket', 'name' => 'Soaked', 'subject' => 'First', 'body' => '<p>Wet</p>'];
        $this->as('ines.okafor', 'POST', 'letters', $letter)->assertCreated();
        $counts = $this->inForce(['name' => 'Counts', 'on' => 'customer', 'fires' => ['kind' => 'every_time'],
            'when' => ['kind' => 'related', 'related' => 'ticket.customer', 'happening' => 'created'], 'lines' => [
                ['kind' => 'set_fields', 'set' => [['field' => 'open_tickets', 'to' => ['kind' => 'add', 'amount' => '1']]]],
            ]]);
        $hour = ['at' => ['kind' => 'after', 'amount' => 1, 'unit' => 'hour']];
        $later = $this->inForce(['name' => 'Later', 'on' => 'ticket', 'fires' => ['kind' => 'every_time'],
            'when' => ['kind' => 'created'], 'lines' => [
                ['kind' => 'send_message', 'channel' => 'app', 'to' => [['kind' => 'person', 'person' => self::MILO]],
                    'letter' => 'Soaked'] + $hour,
                ['kind' => 'give_task', 'to' => self::MILO, 'title' => 'Dry it', 'due' => null] + $hour,
            ]]);
        $this->inForce(self::asking([[
            'who' => ['kind' => 'people', 'people' => [self::MILO]], 'within' => ['amount' => 7, 'unit' => 'day'],
        ]], ['hold' => 'locked']));

        return [$counts, $later];
    }

    private function versionsFollow(): void
    {
        foreach (['customer', 'ticket', 'quote'] as $type) {
            foreach (DB::table("records_{$type}")->pluck('version', 'id') as $id => $version) {
                $kept = DB::table('entries')->where(['record_type' => $type, 'record_id' => $id])->whereNotNull('version')
                    ->orderBy('id')->pluck('version')->map(intval(...))->unique()->values()->all();
                self::assertSame(range(1, (int) $version), $kept, "{$type} {$id}");
            }
        }
    }

    private function eachCounted(int $rule): void
    {
        foreach (DB::table('records_customer')->where('name', 'like', 'soaked %')->pluck('open_tickets', 'id') as $id => $count) {
            $tickets = DB::table('records_ticket')->where('customer', $id)->count();
            $fired = DB::table('entries')->where(['kind' => 'fired', 'rule_id' => $rule, 'record_id' => $id])->count();
            self::assertSame([$tickets, $tickets], [$fired, (int) $count], "customer {$id}");
        }
    }

    private function eachLineOnce(int $rule): void
    {
        self::assertSame(0, DB::table('entries')->where(['kind' => 'line_failed', 'rule_id' => $rule])->count());
        $tickets = DB::table('records_ticket')->where('subject', 'Soaked')->pluck('id')->all();
        self::assertNotSame([], $tickets);
        foreach ($tickets as $id) {
            $of = ['record_type' => 'ticket', 'record_id' => $id];
            $messages = DB::table('messages')->where($of)->where('rule_id', $rule)->pluck('subject')->all();
            self::assertSame([1, 1], [count($messages), DB::table('tasks')->where($of)->count()], "ticket {$id}");
            self::assertContains($messages[0], ['First', 'Second']);
        }
    }

    /** From the firing that asks until the end, a locked quote is changed by nobody but whom the lock names. */
    private function nothingPastALock(): void
    {
        $asked = 0;
        foreach (DB::table('sign_offs')->orderBy('id')->get() as $one) {
            $end = DB::table('entries')->where(['kind' => 'signed_off', 'record_type' => 'quote', 'record_id' => $one->record_id])
                ->where('id', '>', $one->entry_id)->min('id') ?? PHP_INT_MAX;
            $past = DB::table('entries')->where(['kind' => 'changed', 'record_type' => 'quote', 'record_id' => $one->record_id])
                ->where('id', '>', $one->entry_id)->where('id', '<', $end)->pluck('data')->all();
            self::assertSame([], array_filter($past, static fn (?string $data): bool => ! str_contains((string) $data, '"passed"')));
            $asked++;
        }
        self::assertGreaterThan(0, $asked);
    }
}
