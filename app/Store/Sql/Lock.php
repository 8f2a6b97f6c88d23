<?php

declare(strict_types=1);

namespace App\Store\Sql;

/** Ways of locking that the query builder has no method for. */
final class Lock
{
    /** What others hold is passed over, so that workers never wait for each other. */
    public const SKIP = 'FOR UPDATE SKIP LOCKED';
}
