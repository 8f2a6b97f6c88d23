<?php

declare(strict_types=1);

namespace Tests\App\Rules;

use Illuminate\Support\Facades\DB;
use Tests\App\Support\AppTestCase;

/** What a guard remembers of a record, how long, and who made it forget. */
final class ReadyAgainTest extends AppTestCase
{
    public function test_making_ready_again_is_for_one_record_and_is_told(): void
    {
        $rule = $this->firesOnce();
        [$one, $two] = [$this->ticket()['record'], $this->ticket()['record']];
        [$one, $two] = [$this->change($one, ['hours' => '1'])['record'], $this->change($two, ['hours' => '1'])['record']];
        $this->assertRefused($this->as('ines.okafor', 'POST', "records/ticket/{$one['id']}/guards/{$rule}", []), 422, 'invalid_request');
        $beside = $this->as(
            'ines.okafor',
            'POST',
            "records/ticket/{$one['id']}/guards/{$rule}",
            ['why' => 'The letter was lost.'],
        )->assertOk()->json();
        self::assertSame([false], array_column($beside['guards'], 'holds'));

        self::assertCount(1, $this->change($one, ['hours' => '2'])['fired']);
        self::assertCount(0, $this->change($two, ['hours' => '2'])['fired'], 'the other record is as it was');
        $entry = $this->as('odile.march', 'GET', "records/ticket/{$one['id']}/account")->json('entries');
        $ready = array_values(array_filter($entry, static fn (array $one): bool => $one['kind'] === 'ready_again'))[0];
        self::assertSame(['Ines Okafor', 'Once', 'The letter was lost.'], [$ready['who'], $ready['ruleName'], $ready['data']['reason']]);
    }

    public function test_what_is_ready_cannot_be_made_ready(): void
    {
        $rule = $this->firesOnce();
        $ticket = $this->ticket()['record'];
        $path = "records/ticket/{$ticket['id']}/guards/{$rule}";
        $this->assertRefused($this->as('ines.okafor', 'POST', $path, ['why' => 'x']), 409, 'not_used');
        $this->change($ticket, ['hours' => '1']);
        $this->as('ines.okafor', 'POST', $path, ['why' => 'x'])->assertOk();
        self::assertSame(1, DB::table('entries')->where('kind', 'ready_again')->count());
    }

    public function test_a_pause_forgets_nothing(): void
    {
        $rule = $this->firesOnce();
        $ticket = $this->change($this->ticket()['record'], ['hours' => '1'])['record'];
        foreach (['paused', 'in_force'] as $status) {
            $this->as('ines.okafor', 'POST', "rules/{$rule}/status", ['status' => $status])->assertOk();
        }
        $saved = $this->change($ticket, ['hours' => '2']);
        self::assertSame([], $saved['fired']);
        self::assertSame(
            'guard_held',
            $this->as('odile.march', 'GET', "ledger/{$saved['entry']}/answers?rule={$rule}")->json('0.verdict.reason'),
        );
    }

    private function firesOnce(): int
    {
        return $this->inForce([
            'name' => 'Once', 'on' => 'ticket', 'when' => ['kind' => 'changed'], 'fires' => ['kind' => 'once_per_record'],
            'lines' => [['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Look', 'due' => null]],
        ]);
    }
}
