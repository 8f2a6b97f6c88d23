<?php

declare(strict_types=1);

namespace Tests\App\Records;

use Illuminate\Support\Facades\DB;
use Tests\App\Support\AppTestCase;

/** Where a record can go from its stage: what a rule asks for first, and which rules would fire. */
final class StagesAheadTest extends AppTestCase
{
    public function test_each_stage_says_what_it_asks_and_nothing_is_changed(): void
    {
        $this->inForce([
            'name' => 'Hours first', 'on' => 'ticket', 'when' => ['kind' => 'changed', 'fields' => ['status'], 'to' => 'closed'],
            'fires' => ['kind' => 'every_time'],
            'onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'is_empty', 'field' => 'hours']]],
            'lines' => [['kind' => 'refuse', 'message' => 'Write down the hours first.', 'field' => 'hours']],
        ]);
        $this->inForce($this->demoFile('030-waiting-since'));
        $ticket = $this->ticket()['record'];
        $before = DB::table('entries')->count();
        $ahead = fn (string $handle): mixed => $this->as($handle, 'GET', "records/ticket/{$ticket['id']}/stages/ahead")
            ->collect()->keyBy('value')->map(static fn (array $stage): array => [$stage['asks'], $stage['fires'], $stage['closes']])->all();
        $said = $ahead('bram.castellan');
        self::assertArrayNotHasKey('open', $said, 'it is there already');
        self::assertSame(['', ['Stamp waiting since'], false], $said['waiting']);
        self::assertSame(['Write down the hours first.', [], true], $said['closed']);
        self::assertSame($before, DB::table('entries')->count(), 'nothing was done');
        self::assertSame('open', DB::table('records_ticket')->where('id', $ticket['id'])->value('status'));

        $this->change($ticket, ['hours' => '2']);
        self::assertSame(['', [], true], $ahead('bram.castellan')['closed']);
        $this->as('odile.march', 'GET', "records/ticket/{$ticket['id']}/stages/ahead")->assertForbidden();
    }
}
