<?php

declare(strict_types=1);

namespace App\Work;

use App\Models\WorkerProcess;
use Illuminate\Database\Connection;

/** What has to be swept away from time to time. */
final readonly class Housekeeping
{
    private const SESSION_SECONDS = 12 * 3600;

    private const SILENT_SECONDS = 3600;

    public function __construct(private Connection $db)
    {
    }

    /** @return int how many rows were swept away */
    public function sweep(): int
    {
        return $this->db->table('sessions')->where('last_activity', '<', time() - self::SESSION_SECONDS)->delete()
            + $this->db->table('cache')->where('expiration', '<', time())->delete()
            + WorkerProcess::rows()->where('beat_at', '<', gmdate('Y-m-d H:i:s', time() - self::SILENT_SECONDS))->delete()
            + $this->db->table('personal_access_tokens')->where('expires_at', '<', gmdate('Y-m-d H:i:s'))->delete();
    }
}
