<?php

declare(strict_types=1);

namespace App\Work\Operations;

use App\Models\Ledger\Entry;
use App\Models\Ledger\EntrySeal;
use App\Models\Operations\WorkerProcess;
use App\Models\Outbound\CallStatus;
use App\Models\Outbound\MessageStatus;
use App\Models\Outbound\StoredCall;
use App\Models\Outbound\StoredMessage;
use App\Models\Timing\LineStatus;
use App\Models\Timing\ScheduledLine;
use App\Models\Timing\TimingSum;
use App\Store\HouseClock;
use App\Store\Operations\Timings;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\Queue;

/** How the house is doing, for whoever watches machines: the text format of Prometheus, version 0.0.4. */
final readonly class Metrics
{
    public function __construct(private HouseClock $clock)
    {
    }

    public function text(): string
    {
        $now = $this->clock->now();
        $due = ScheduledLine::query()->where('status', LineStatus::Pencilled)->where('due_at', '<=', $now);
        $oldest = (clone $due)->orderBy('due_at')->first();
        $text = self::gauge('lines_pencilled', 'Pencilled lines that are still to come or due.', [
            '' => ScheduledLine::query()->where('status', LineStatus::Pencilled)->count(),
        ]).self::gauge('lines_due', 'Pencilled lines that are due now.', ['' => $due->count()])
            .self::gauge('lines_oldest_due_seconds', 'For how long the oldest of them has been due.', [
                '' => $oldest?->due_at === null ? 0 : max(0, $now->getTimestamp() - $oldest->due_at->getTimestamp()),
            ]);
        $queues = $processes = [];
        foreach (Health::QUEUES as $queue) {
            $queues["{queue=\"{$queue}\"}"] = Queue::size($queue);
        }
        foreach (WorkerProcess::query()->get()->groupBy('kind') as $kind => $some) {
            $processes["{kind=\"{$kind}\"}"] = $some->filter(
                static fn (WorkerProcess $process): bool => Heartbeat::isAlive($process->beat_at),
            )->count();
        }

        $messages = self::byStatus(StoredMessage::rows(), MessageStatus::cases());
        $calls = self::byStatus(StoredCall::rows(), CallStatus::cases());

        return $text.self::gauge('messages', 'Letters and text messages of the outbox, by how far they are.', $messages)
            .self::gauge('calls', 'Calls to other systems, by how far they are.', $calls)
            .self::gauge('queue_jobs', 'Jobs that wait.', $queues)
            .self::gauge('processes_alive', 'Programs at work.', $processes)
            .self::gauge('entries', 'Number of the last entry of the ledger.', ['' => (int) Entry::query()->max('id')])
            .self::gauge('entries_sealed', 'Number of the last that is sealed.', ['' => (int) EntrySeal::query()->max('entry_id')])
            .self::histogram('seconds', 'How long a save takes, and the decision of the rules in it.');
    }

    /**
     * @param  list<\BackedEnum>  $all
     * @return array<string, int> by their labels; those that no row has, too
     */
    private static function byStatus(Builder $rows, array $all): array
    {
        $counts = $rows->groupBy('status')->selectRaw('status, COUNT(*) AS count')->pluck('count', 'status')->all();
        $values = [];
        foreach ($all as $status) {
            $values["{status=\"{$status->value}\"}"] = (int) ($counts[$status->value] ?? 0);
        }

        return $values;
    }

    private static function histogram(string $name, string $help): string
    {
        $text = "# HELP vivid_ledger_{$name} {$help}\n# TYPE vivid_ledger_{$name} histogram\n";
        $sums = TimingSum::query()->get()->groupBy('name');
        foreach (Timings::NAMES as $of) {
            [$count, $seconds] = [0, 0.0];
            $rows = $sums->get($of)?->keyBy('bucket');
            foreach ([...Timings::BUCKETS, '+Inf'] as $bucket => $end) {
                $count += $rows?->get($bucket)->count ?? 0;
                $seconds += $rows?->get($bucket)->seconds ?? 0.0;
                $text .= "vivid_ledger_{$name}_bucket{of=\"{$of}\",le=\"{$end}\"} {$count}\n";
            }
            $text .= "vivid_ledger_{$name}_sum{of=\"{$of}\"} ".round($seconds, 6)."\nvivid_ledger_{$name}_count{of=\"{$of}\"} {$count}\n";
        }

        return $text;
    }

    /** @param  array<string, int>  $values  by their labels */
    private static function gauge(string $name, string $help, array $values): string
    {
        $text = "# HELP vivid_ledger_{$name} {$help}\n# TYPE vivid_ledger_{$name} gauge\n";
        foreach ($values as $labels => $value) {
            $text .= "vivid_ledger_{$name}{$labels} {$value}\n";
        }

        return $text;
    }
}
