<?php

declare(strict_types=1);

namespace Tests\App\Ledger;

use App\Models\Ledger\EntrySeal;
use App\Store\Ledger\SealedRows;
use App\Store\Ledger\Sealer;
use App\Store\Ledger\Verifier;
use Closure;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\App\Support\AppTestCase;

/** The ledger is sealed, and nobody changes, removes or slips in anything unseen. */
final class SealTest extends AppTestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        $this->inForce($this->demoFile('010-urgent-ticket'));
        for ($count = 0; $count < 4; $count++) {
            $ticket = $this->ticket(['subject' => "Nr {$count} “ü” 🌿", 'priority' => 'urgent'])['record'];
            $this->change($ticket, ['hours' => (string) $count, 'status' => 'waiting']);
        }
    }

    /** @return iterable<string, array{Closure(int): void, int}> what is done to the ledger, and at least how many breaks it makes */
    public static function tampering(): iterable
    {
        $entry = static fn (int $id) => DB::table('entries')->where('id', $id);
        foreach ([
            'kind' => 'changed!', 'at' => '2020-01-01 00:00:00', 'actor_id' => 77, 'via' => 'api', 'record_type' => 'visit',
            'record_id' => 9, 'version' => 99, 'rule_id' => 99, 'page' => 9, 'task_id' => 9, 'cause_id' => 9, 'data' => '{"a": 1}',
        ] as $column => $value) {
            yield "another {$column}" => [static fn (int $id) => $entry($id)->update([$column => $value]), 1];
        }
        yield 'taken away' => [static fn (int $id) => $entry($id)->delete(), 1];
        yield 'the last taken away' => [static fn (int $id) => $entry((int) DB::table('entries')->max('id'))->delete(), 1];
        yield 'one slipped in' => [static function (int $id) use ($entry): void {
            $row = (array) $entry($id)->first();
            EntrySeal::query()->whereKey($id)->delete();
            $entry($id)->delete();
            DB::table('entries')->insert(['id' => $id] + $row);
        }, 1];
        yield 'two exchanged' => [static function (int $id) use ($entry): void {
            [$one, $other] = [$entry($id)->value('data'), $entry($id + 1)->value('data')];
            $entry($id)->update(['data' => $other === $one ? '{"x": 1}' : $other]);
            $entry($id + 1)->update(['data' => $one]);
        }, 1];
        yield 'what a field was' => [static function (int $id): void {
            $row = DB::table('field_history')->where('entry_id', '>=', $id)->orderBy('id')->value('id');
            DB::table('field_history')->where('id', $row)->update(['after' => '"something else"']);
        }, 1];
        yield 'a field more' => [static fn (int $id) => DB::table('field_history')->insert([
            'entry_id' => $id, 'record_type' => 'ticket', 'record_id' => 1, 'field' => 'notes', 'before' => null, 'after' => '"x"',
        ]), 1];
        yield 'a field less' => [static fn (int $id) => DB::table('field_history')->where('entry_id', '>=', $id)->limit(1)->delete(), 1];
        yield 'another seal' => [static fn (int $id) => EntrySeal::query()->whereKey($id)->update(['hash' => str_repeat('x', 32)]), 1];
    }

    /** @param  Closure(int): mixed  $tamper */
    #[DataProvider('tampering')]
    public function test_whatever_is_done_to_it_is_found(Closure $tamper, int $breaks): void
    {
        $this->seal();
        self::assertTrue($this->verifier()->verify());
        $ids = DB::table('entries')->orderBy('id')->pluck('id')->all();
        $tamper((int) $ids[intdiv(count($ids), 2)]);
        $verifier = $this->verifier();
        self::assertFalse($verifier->verify());
        self::assertGreaterThanOrEqual($breaks, count($verifier->findings));
        self::assertLessThanOrEqual(3, count($verifier->findings), 'each break is told once: '.implode(' ', $verifier->findings));
    }

    public function test_a_chain_made_anew_is_found_by_a_checkpoint(): void
    {
        $this->seal();
        $verifier = $this->verifier();
        $verifier->verify();
        [$number, $seal] = explode(':', $verifier->checkpoint);
        $this->ticket();
        $this->seal();
        self::assertTrue($this->verifier()->verify([(int) $number => $seal]), 'what came later changes nothing before');
        self::assertSame(0, Artisan::call('ledger:verify', ['checkpoint' => ["{$number}:{$seal}"]]));
        DB::table('entries')->where('id', DB::table('entries')->min('id'))->update(['actor_id' => 77]);
        EntrySeal::query()->delete();
        $this->seal();
        self::assertTrue($this->verifier()->verify(), 'by itself it looks well');
        self::assertSame(1, Artisan::call('ledger:verify', ['checkpoint' => ["{$number}:{$seal}"]]));
        self::assertStringContainsString('made anew', Artisan::output());
        self::assertSame(2, Artisan::call('ledger:verify', ['checkpoint' => ['x']]));
    }

    /** Numbers are given out before they are committed: what may still come is not passed over. */
    public function test_nothing_is_sealed_before_everything_older_has_come(): void
    {
        $sealer = $this->app->make(Sealer::class);
        self::assertSame(0, $sealer->work(), 'first the number is noted');
        $last = (int) DB::table('entries')->max('id');
        self::assertSame($last, (int) DB::table('company')->value('sealing_upto'));
        self::assertSame(0, $sealer->work(), 'and some time goes by');
        self::assertSame(0, EntrySeal::query()->count());
        $sealer->seal($last);
        $later = $this->ticket()['entry'];
        self::assertSame($last, (int) EntrySeal::query()->max('entry_id'));
        self::assertGreaterThan($last, $later);
        $verifier = $this->verifier();
        self::assertTrue($verifier->verify(), 'what is not sealed yet is no break');
        self::assertSame(DB::table('entries')->where('id', '<=', $last)->count(), $verifier->looked);
    }

    /** However long a save takes, what it has written and not committed is not passed over, and no right is needed to know of it. */
    public function test_what_somebody_is_still_writing_is_waited_for(): void
    {
        $other = DB::connectUsing('beside', config('database.connections.mariadb'));
        $other->beginTransaction();
        $other->table('entries')->insert(['kind' => 'comment', 'at' => '2026-11-24 09:00:00', 'via' => 'person', 'data' => '{}']);
        $this->ticket();
        $last = (int) DB::table('entries')->max('id');
        $sealer = $this->app->make(Sealer::class);
        self::assertSame(0, $sealer->seal($last));
        $other->rollBack();
        DB::purge('beside');
        self::assertSame(DB::table('entries')->count(), $sealer->seal($last));
    }

    public function test_no_value_runs_into_the_next(): void
    {
        $contents = [];
        $ids = DB::table('entries')->orderBy('id')->limit(2)->pluck('id')->all();
        foreach ([['ab', 'c'], ['a', 'bc'], ['', 'abc'], ['abc', '']] as [$type, $via]) {
            DB::table('entries')->where('id', $ids[0])->update(['kind' => $type, 'via' => $via]);
            foreach ($this->app->make(SealedRows::class)->between(0, (int) $ids[0]) as [$content]) {
                $contents[] = $content;
            }
        }
        self::assertCount(4, array_unique($contents));
    }

    private function seal(): void
    {
        $this->app->make(Sealer::class)->seal((int) DB::table('entries')->max('id'));
    }

    private function verifier(): Verifier
    {
        return $this->app->make(Verifier::class);
    }
}
