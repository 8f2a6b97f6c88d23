<?php

declare(strict_types=1);

namespace Tests\App\Rehearsal;

use App\Store\Types\SchemaStore;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\TimeTestCase;
use Tests\Core\Support\WholeRange;

/**
 * Rules over the whole range, rehearsed through the API and then lived through in the application with its workers: what was
 * shown is what happens, entry by entry, at the same moments, to the same people.
 */
final class RehearsedRangeTest extends TimeTestCase
{
    private const RULES = 100;

    private const WITH_OTHERS = 20;

    private const BEGINS = '2026-11-24T08:45:00Z';

    /** No story is followed any longer. */
    private const ENDS = '2026-12-14T12:00:00Z';

    private const ENDS_WITH_OTHERS = '2026-11-29T12:00:00Z';

    public function test_what_was_shown_is_what_happens(): void
    {
        $lived = [];
        for ($seed = 1; $seed <= self::RULES; $seed++) {
            DB::beginTransaction();
            foreach ($this->story($seed) as $kind) {
                $lived[$kind] = ($lived[$kind] ?? 0) + 1;
            }
            DB::rollBack();
            $this->forgetEverything();
        }
        foreach ([
            'fired' => 30, 'line' => 40, 'struck' => 1, 'retimed' => 1, 'sign_off' => 20, 'signed_off' => 5, 'changed' => 30,
            'created' => 1,
        ] as $kind => $least) {
            self::assertGreaterThanOrEqual(
                $least,
                $lived[$kind] ?? 0,
                "The stories have to bring about enough of: {$kind} ".json_encode($lived),
            );
        }
    }

    /** Other rules, which dates, silences and timetables set off, come in between. */
    public function test_what_was_shown_of_other_rules_is_what_happens(): void
    {
        $others = 0;
        for ($seed = 501; $seed <= 500 + self::WITH_OTHERS; $seed++) {
            DB::beginTransaction();
            $this->story($seed, 3);
            $others += (int) DB::scalar(
                "SELECT COUNT(*) FROM entries e JOIN rules r ON r.id = e.rule_id WHERE e.kind = 'fired' AND r.name LIKE 'Other %'",
            );
            DB::rollBack();
            $this->forgetEverything();
        }
        self::assertGreaterThan(5, $others, "{$others} came in between");
    }

    /** @return list<string> kinds of the entries that were shown and came about */
    private function story(int $seed, int $others = 0): array
    {
        // On the quarter of an hour, as sweeps are.
        $this->clockAt(self::BEGINS);
        $ticket = $this->written(['status' => 'open', 'priority' => 'normal', 'due' => '2026-11-27', 'cost' => '40', 'under_care' => true]);
        $range = new WholeRange(
            $seed,
            $this->app->make(SchemaStore::class)->schema(),
            $this->app->make(\VividLedger\House\Directory::class),
            new \DateTimeZone('Europe/Berlin'),
            ['ines.okafor', 'tomas.weld'],
            $this->oneOfEach(),
        );
        $file = $this->near($range->rule("Rule {$seed}"), $others > 0 ? 4 : 20);
        $file['when'] = [
            ['kind' => 'created_or_changed'], ['kind' => 'changed'], ['kind' => 'changed', 'fields' => ['status', 'priority']],
            ['kind' => 'comment', 'about' => 'leak'],
        ][$seed % 4];
        if ($seed % 3 > 0) {
            unset($file['onlyIf']);
        }
        if ($seed % 3 === 0) {
            array_push($file['lines'], ...self::lockedForADay($seed % 2 === 0));
        }
        if ($others > 0) {
            // Something of its own has to come in the end, or there is nothing to wait for.
            $file['lines'][] = ['kind' => 'comment', 'text' => 'The end', 'at' => ['kind' => 'after', 'amount' => 4, 'unit' => 'day']];
            unset($file['until']);
        }
        for ($count = 1; $count <= $others; $count++) {
            do {
                $other = $this->near($range->rule("Other {$count}"), 4);
            } while (! in_array($other['when']['kind'], ['date', 'quiet', 'timetable'], true) || isset($other['when']['per']));
            // The rehearsal lets time pass for its own record only.
            $this->inForce(['onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'ticked', 'field' => 'under_care']]]] + $other);
        }
        $set = ['status' => 'waiting', 'priority' => 'urgent', 'cost' => '620'];
        $comments = $file['when']['kind'] === 'comment';
        $opening = ['at' => self::BEGINS] + ($comments ? ['kind' => 'comment', 'text' => 'There is a “leak”']
            : ['kind' => 'changed', 'set' => $set]);
        $answer = $this->as(
            'ines.okafor',
            'POST',
            'rehearse',
            ['file' => $file, 'record' => ['id' => $ticket['id']], 'opening' => $opening],
        );
        self::assertSame(200, $answer->status(), "seed {$seed}: ".$answer->getContent());
        $played = $answer->json();

        $this->inForce($file);
        $from = (int) DB::table('entries')->max('id');
        $comments ? $this->as(
            'ines.okafor',
            'POST',
            "records/ticket/{$ticket['id']}/comments",
            ['text' => $opening['text']],
        )->assertCreated() : $this->change($this->now('ticket', $ticket['id']), $set, 'ines.okafor');
        $this->workNow();
        $ends = min($played['until'], $others > 0 ? self::ENDS_WITH_OTHERS : self::ENDS);
        $this->passTo($ends);
        $happened = array_map(
            fn (int $id): array => $this->as('ines.okafor', 'GET', "ledger/{$id}")->assertOk()->json('entry'),
            DB::table('entries')->where('id', '>', $from)->where('kind', '<>', 'task_due')->orderBy('id')->pluck('id')->all(),
        );
        $shown = array_map(
            $this->outline(...),
            array_values(array_filter(array_column($played['entries'], 'entry'), static fn (array $entry): bool => $entry['at'] <= $ends)),
        );
        self::assertSame($shown, array_map($this->outline(...), $happened), "seed {$seed}: ".json_encode($file, JSON_PRETTY_PRINT));

        return array_column($happened, 'kind');
    }

    /** @return list<array<string, mixed>> a sign-off that time agrees to, and what waits for that */
    private static function lockedForADay(bool $catchesUp): array
    {
        return [
            ['kind' => 'sign_off', 'key' => 'own', 'hold' => $catchesUp ? 'catch_up' : 'locked', 'steps' => [[
                'who' => ['kind' => 'people', 'people' => [['kind' => 'named', 'handle' => 'tomas.weld']]],
                'within' => ['amount' => 1, 'unit' => 'day'], 'late' => 'agree',
            ]]],
            ['kind' => 'comment', 'text' => 'It is signed off', 'at' => [
                'kind' => 'signed_off', 'line' => 'own', 'status' => 'agreed', 'amount' => 2, 'unit' => 'hour',
            ]],
        ];
    }

    /**
     * The rule with nothing in it that lies far off, and with nothing that a rehearsal does not play.
     *
     * @param  array<string, mixed>  $file
     * @return array<string, mixed>
     */
    private function near(array $file, int $days): array
    {
        $file['lines'] = array_values(array_filter(
            $file['lines'],
            static fn (array $line): bool => ! in_array($line['kind'], ['refuse', 'send_list'], true),
        ));
        if ($file['lines'] === []) {
            $file['lines'] = [['kind' => 'comment', 'text' => 'Here']];
        }
        $near = static function (array $json) use (&$near, $days): array {
            if (isset($json['unit'], $json['amount'])) {
                $isShort = in_array($json['unit'], ['minute', 'hour', 'working_hour'], true);
                $json['unit'] = $json['unit'] === 'minute' ? 'hour' : ($isShort || $json['unit'] === 'working_day' ? $json['unit'] : 'day');
                $json['amount'] = $isShort
                    || $json['amount'] === 0 ? $json['amount'] : (abs($json['amount']) % $days + 1) * ($json['amount'] <=> 0);
            }

            return array_map(
                static fn (mixed $value): mixed => is_array($value) ? $near($value) : ($value === '09:05' ? '09:15' : $value),
                $json,
            );
        };

        return $near($file);
    }

    /** @param  array<string, mixed>  $entry */
    private function outline(array $entry): string
    {
        // Which number a new record gets, a rehearsal cannot know.
        $data = (string) preg_replace(
            ['/\b(?!T-)[A-Z]-\d{4}\b/', '/"(id|signOff)":\d+/'],
            ['#', '"$1":0'],
            (string) json_encode([$entry['changes'], $entry['data']]),
        );

        return "{$entry['at']} {$entry['kind']} {$entry['ruleName']} {$entry['recordType']} {$data}";
    }
}
