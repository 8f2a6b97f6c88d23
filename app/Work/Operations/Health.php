<?php

declare(strict_types=1);

namespace App\Work\Operations;

use App\Models\Operations\WorkerProcess;
use App\Models\Setup\CompanySettings;
use Illuminate\Support\Facades\Queue;
use VividLedger\Words\Words;

/** Whether the application can do its work: its database answers, what waits is taken, and its clock ticks. */
final class Health
{
    /** So many calls may wait before it is clear that nobody takes them. */
    private const MOST_WAITING = 10_000;

    public const QUEUES = ['letters', 'calls', 'proofs', 'runs'];

    /** What is the matter, in words that anybody may read; null when nothing is. */
    public function trouble(): ?string
    {
        try {
            CompanySettings::query()->exists();
            $clocks = WorkerProcess::query()->where('kind', 'clock')->get();
        } catch (\Throwable $broken) {
            report($broken);

            return 'The database does not answer.';
        }
        if ($clocks->isNotEmpty() && ! $clocks->contains(static fn (WorkerProcess $clock): bool => Heartbeat::isAlive($clock->beat_at))) {
            return 'The clock process has stopped.';
        }
        try {
            $waiting = array_filter(self::QUEUES, static fn (string $queue): bool => Queue::size($queue) > self::MOST_WAITING);
        } catch (\Throwable $broken) {
            report($broken);

            return 'The queue does not answer.';
        }

        return $waiting === [] ? null : 'What waits in the queue is not taken: '.implode(', ', $waiting).'.';
    }

    /** @return array<string, string> what is configured, for "php artisan about" */
    public static function about(): array
    {
        return [
            'Mail' => (string) preg_replace('#//[^@/]*@#', '//…@', (string) config('ledger.mail.dsn')),
            'Mail fetched from' => config('ledger.mail.imap') === '' ? 'nowhere'
                : (string) preg_replace('#//[^@/]*@#', '//…@', (string) config('ledger.mail.imap')),
            'Text messages' => (string) config('ledger.sms.url'),
            'Clock may be turned' => config('ledger.clock_may_turn') === true ? 'YES' : 'NO',
            'Lines claimed at a time' => (string) config('ledger.batch'),
            'Largest file' => round((int) config('limits.file_bytes') / 1_000_000, 1).' MB',
        ];
    }
}
