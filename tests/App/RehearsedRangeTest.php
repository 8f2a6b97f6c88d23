<?php

declare(strict_types=1);

namespace Tests\App;

use App\Store\SchemaStore;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\TimeTestCase;
use Tests\Core\Support\WholeRange;

/**
 * Rules over the whole range, rehearsed through the API and then lived through in the application with its workers: what was
 * shown is what happens, entry by entry, at the same moments, to the same people.
 */
final class RehearsedRangeTest extends TimeTestCase
{
    private const RULES = 60;

    public function test_what_was_shown_is_what_happens(): void
    {
        $lived = [];
        for ($seed = 1; $seed <= self::RULES; $seed++) {
            DB::beginTransaction();
            foreach ($this->story($seed) as $kind) {
                $lived[$kind] = ($lived[$kind] ?? 0) + 1;
            }
            DB::rollBack();
            $this->app->forgetScopedInstances();
        }
        foreach (['fired' => 10, 'line' => 15, 'struck' => 2, 'changed' => 30, 'created' => 2] as $kind => $least) {
            self::assertGreaterThanOrEqual($least, $lived[$kind] ?? 0, "The stories have to bring about enough of: {$kind} ".json_encode($lived));
        }
    }

    /** @return list<string> kinds of the entries that were shown and came about */
    private function story(int $seed): array
    {
        $this->clockAt(self::NOW);
        $ticket = $this->written(['status' => 'open', 'priority' => 'normal', 'due' => '2026-12-03', 'cost' => '40']);
        $file = $this->rule($seed);
        $set = ['status' => 'waiting', 'priority' => 'urgent', 'cost' => '620'];
        $comments = $file['when']['kind'] === 'comment';
        $opening = ['at' => '2026-11-24T08:40:00Z'] + ($comments ? ['kind' => 'comment', 'text' => 'There is a “leak”'] : ['kind' => 'changed', 'set' => $set]);
        $answer = $this->as('ines.okafor', 'POST', 'rehearse', ['file' => $file, 'record' => ['id' => $ticket['id']], 'opening' => $opening]);
        self::assertSame(200, $answer->status(), "seed {$seed}: ".$answer->getContent());
        $played = $answer->json();

        $this->inForce($file);
        $from = (int) DB::table('entries')->max('id');
        $comments ? $this->as('ines.okafor', 'POST', "records/ticket/{$ticket['id']}/comments", ['text' => $opening['text']])->assertCreated() : $this->change($this->now('ticket', $ticket['id']), $set, 'ines.okafor');
        $this->workNow();
        $this->passTo($played['until']);
        $happened = array_map(fn (int $id): array => $this->as('ines.okafor', 'GET', "ledger/{$id}")->assertOk()->json('entry'), DB::table('entries')->where('id', '>', $from)->where('kind', '<>', 'task_due')->orderBy('id')->pluck('id')->all());
        $shown = array_map($this->outline(...), array_column($played['entries'], 'entry'));
        self::assertSame($shown, array_map($this->outline(...), $happened), "seed {$seed}: ".json_encode($file, JSON_PRETTY_PRINT));

        return array_column($happened, 'kind');
    }

    /** @return array<string, mixed> */
    private function rule(int $seed): array
    {
        $range = new WholeRange($seed, $this->app->make(SchemaStore::class)->schema(), $this->app->make(\VividLedger\People\Directory::class), new \DateTimeZone('Europe/Berlin'), ['ines.okafor', 'tomas.weld'], $this->oneOfEach());
        $file = $range->rule("Rule {$seed}");
        $file['when'] = [['kind' => 'created_or_changed'], ['kind' => 'changed'], ['kind' => 'changed', 'fields' => ['status', 'priority']], ['kind' => 'comment', 'about' => 'leak']][$seed % 4];
        $file['lines'] = array_values(array_filter($file['lines'], static fn (array $line): bool => ! in_array($line['kind'], ['refuse', 'send_list'], true)));
        if ($file['lines'] === []) {
            $file['lines'] = [['kind' => 'comment', 'text' => 'Here']];
        }
        // A story of some weeks is long enough.
        $near = static function (array $json) use (&$near): array {
            foreach ($json as $key => $value) {
                $json[$key] = is_array($value) ? $near($value) : (in_array($value, ['week', 'month', 'year'], true) && $key === 'unit' ? 'day' : $value);
            }

            return $json;
        };

        return $near($file);
    }

    /** @param  array<string, mixed>  $entry */
    private function outline(array $entry): string
    {
        // Which number a new record gets, a rehearsal cannot know.
        $data = (string) preg_replace(['/\b(?!T-)[A-Z]-\d{4}\b/', '/"id":\d+/'], ['#', '"id":0'], (string) json_encode([$entry['changes'], $entry['data']]));

        return "{$entry['at']} {$entry['kind']} {$entry['ruleName']} {$entry['recordType']} {$data}";
    }
}
