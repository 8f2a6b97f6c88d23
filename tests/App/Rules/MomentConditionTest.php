<?php

declare(strict_types=1);

namespace Tests\App\Rules;

use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\App\Support\TimeTestCase;

/** Conditions on the moment: judged alike when a record is saved, when a line falls due, and over a list. */
final class MomentConditionTest extends TimeTestCase
{
    private const WORKING_DAY = ['kind' => 'day_is', 'day' => 'working_day'];

    /** @return iterable<string, array{string, array<string, mixed>, bool}> a moment in UTC, what is said of it, and whether it is so */
    public static function moments(): iterable
    {
        $time = static fn (string $from, string $to): array => ['kind' => 'time_is', 'from' => $from, 'to' => $to];
        yield 'a Tuesday' => ['2026-11-24T08:40:00Z', self::WORKING_DAY, true];
        yield 'a Saturday' => ['2026-11-28T12:00:00Z', self::WORKING_DAY, false];
        yield 'Saturday in Berlin, while it is Friday in Greenwich' => ['2026-11-27T23:30:00Z', self::WORKING_DAY, false];
        yield 'and it is called so' => ['2026-11-27T23:30:00Z', ['kind' => 'day_is', 'day' => 'saturday'], true];
        yield 'no Friday any more' => ['2026-11-27T23:30:00Z', ['kind' => 'day_is_not', 'day' => 'friday'], true];
        yield 'the first minute belongs to it' => ['2026-11-24T07:00:00Z', $time('08:00', '18:00'), true];
        yield 'the last does not' => ['2026-11-24T17:00:00Z', $time('08:00', '18:00'), false];
        yield 'over midnight, late' => ['2026-11-24T22:00:00Z', $time('22:00', '06:00'), true];
        yield 'over midnight, early' => ['2026-11-24T04:59:00Z', $time('22:00', '06:00'), true];
        yield 'over midnight, by day' => ['2026-11-24T05:00:00Z', ['kind' => 'time_is_not', 'from' => '22:00', 'to' => '06:00'], true];
        yield 'up to the end of the day' => ['2026-11-24T22:59:00Z', $time('18:00', '24:00'), true];
        yield 'at work' => ['2026-11-24T08:40:00Z', ['kind' => 'working_hours'], true];
        yield 'at night' => ['2026-11-24T23:40:00Z', ['kind' => 'working_hours'], false];
        yield 'at the weekend' => ['2026-11-28T08:40:00Z', ['kind' => 'not_working_hours'], true];
    }

    /** @param  array<string, mixed>  $condition */
    #[DataProvider('moments')]
    public function test_it_is_judged_alike_everywhere(string $at, array $condition, bool $holds): void
    {
        $this->inForce([
            'name' => 'Moment', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'onlyIf' => ['kind' => 'all', 'of' => [$condition]],
            'lines' => [['kind' => 'comment', 'text' => 'So it is']],
        ]);
        $this->clockAt($at);
        $fired = $this->ticket();
        self::assertSame($holds ? ['So it is'] : [], $this->comments($fired['record']['id']));
        $listed = $this->as('ines.okafor', 'GET', 'records/ticket?filter='.rawurlencode((string) json_encode(
            ['kind' => 'all', 'of' => [$condition]],
        )))->assertOk()->json('rows');
        self::assertSame($holds, $listed !== []);
    }

    public function test_a_line_is_done_only_on_a_day_on_which_somebody_reads_it(): void
    {
        $line = static fn (int $days): array => [
            'kind' => 'comment', 'text' => "After {$days}", 'at' => ['kind' => 'after', 'amount' => $days, 'unit' => 'day'],
            'onlyIf' => ['kind' => 'all', 'of' => [self::WORKING_DAY]],
        ];
        $this->inForce([
            'name' => 'Days', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'lines' => [$line(3), $line(4), $line(5), $line(6)],
        ]);
        $ticket = $this->ticket()['record']['id'];
        $this->passTo('2026-12-02T00:00:00Z');
        self::assertSame(['After 3', 'After 6'], $this->comments($ticket), 'a Friday and a Monday');
    }

    /** @return list<string> */
    private function comments(int $ticket): array
    {
        return DB::table('entries')->where(['kind' => 'comment', 'record_type' => 'ticket', 'record_id' => $ticket])->orderBy('id')
            ->pluck('data')->map(static fn (string $data): string => json_decode($data, true)['text'])->all();
    }
}
