<?php

declare(strict_types=1);

namespace App\Store\Sql;

/** Ways of locking rows, as they stand behind a statement. */
final class Lock
{
    /** Nobody changes it before the transaction ends; others may read it in the same way. */
    public const READ = 'LOCK IN SHARE MODE';

    /** The same, and an error at once where somebody is at it. */
    public const ASK = 'LOCK IN SHARE MODE NOWAIT';

    /** Nobody else reads it to decide, or changes it. */
    public const WRITE = 'FOR UPDATE';

    /** What others hold is passed over, so that workers never wait for each other. */
    public const SKIP = 'FOR UPDATE SKIP LOCKED';
}
