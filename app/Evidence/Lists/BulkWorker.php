<?php

declare(strict_types=1);

namespace App\Evidence\Lists;

use App\Evidence\Import\ImportPiece;
use App\Evidence\Import\ImportTrial;
use App\Models\Columns;
use App\Models\Lists\BulkJob;
use App\Models\Lists\BulkKind;
use App\Models\Lists\BulkStatus;
use App\Store\DomainError;
use App\Store\LedgerConnection;
use App\Store\Sql\Lease;
use Illuminate\Contracts\Container\Container;

/** Goes through work on many records, a piece at a time; between two pieces it may be stopped, and whoever dies is followed by another. */
final readonly class BulkWorker
{
    public function __construct(private LedgerConnection $db, private Container $app)
    {
    }

    /**
     * @param  float  $seconds  for about so long
     * @return int how many rows were gone through; 0 means that nothing waits
     */
    public function work(float $seconds): int
    {
        $job = Lease::take($this->db, BulkJob::query()->whereIn('status', BulkStatus::AT_WORK));
        if ($job === null) {
            return 0;
        }
        BulkJob::query()->whereKey($job->id)->where('status', BulkStatus::Waiting)->update(['status' => BulkStatus::Running]);
        [$through, $end, $pieces] = [0, microtime(true) + $seconds, []];
        do {
            $job->refresh();
            if (! in_array($job->status->value, BulkStatus::AT_WORK, true)) {
                break;
            }
            $job->update(['leased_until' => Lease::until()]);
            $piece = $pieces[$job->status->value] ??= $this->piece($job);
            try {
                $count = $piece->piece($job);
            } catch (DomainError $refused) {
                // It cannot be gone on with; what was done stays, and why stands with it.
                BulkJob::query()->whereKey($job->id)->update([
                    'status' => BulkStatus::Stopped, 'spec' => Columns::json(['stoppedBecause' => $refused->getMessage()] + $job->spec),
                ]);
                break;
            }
            $through += $count;
            // Whoever is at work meanwhile gets a turn.
            usleep(1000 * (int) config('ledger.bulk_rest'));
            if ($count === 0 && $job->status !== BulkStatus::Trying) {
                $isUndoing = $job->status === BulkStatus::Undoing;
                BulkJob::query()->whereKey($job->id)->where('status', $job->status)
                    ->update(['status' => $isUndoing ? BulkStatus::Undone : BulkStatus::Done]);
            }
        } while ($count > 0 && microtime(true) < $end);
        BulkJob::query()->whereKey($job->id)->update(['leased_until' => null]);

        return max(1, $through);
    }

    private function piece(BulkJob $job): BulkPiece
    {
        return $this->app->make(match (true) {
            $job->status === BulkStatus::Undoing => UndoPiece::class,
            $job->status === BulkStatus::Trying => ImportTrial::class,
            $job->kind === BulkKind::Import => ImportPiece::class,
            default => ChangePiece::class,
        });
    }
}
