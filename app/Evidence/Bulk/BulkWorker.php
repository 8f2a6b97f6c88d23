<?php

declare(strict_types=1);

namespace App\Evidence\Bulk;

use App\Models\BulkJob;
use App\Models\BulkKind;
use App\Models\BulkStatus;
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
        [$through, $end] = [0, microtime(true) + $seconds];
        do {
            $job->refresh();
            if (! in_array($job->status->value, BulkStatus::AT_WORK, true)) {
                break;
            }
            $job->update(['leased_until' => Lease::until()]);
            /** @var BulkPiece $piece */
            $piece = $this->app->make($job->status === BulkStatus::Undoing ? UndoPiece::class : self::of($job->kind));
            $count = $piece->piece($job);
            $through += $count;
            if ($count === 0) {
                $isUndoing = $job->status === BulkStatus::Undoing;
                BulkJob::query()->whereKey($job->id)->where('status', $job->status)
                    ->update(['status' => $isUndoing ? BulkStatus::Undone : BulkStatus::Done]);
            }
        } while ($count > 0 && microtime(true) < $end);
        BulkJob::query()->whereKey($job->id)->update(['leased_until' => null]);

        return max(1, $through);
    }

    /** @return class-string<BulkPiece> */
    private static function of(BulkKind $kind): string
    {
        return match ($kind) {
            BulkKind::Change => ChangePiece::class,
            BulkKind::Import => ImportPiece::class,
        };
    }
}
