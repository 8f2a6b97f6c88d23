<?php

declare(strict_types=1);

namespace App\Store\Lists;

use Illuminate\Database\Query\Builder;

/** Words that a list is searched for, looked up once for every query of it. */
final readonly class SearchFilter
{
    /**
     * @param  bool  $isLookedUp  whether an index knows which records have them, so that none has to be gone through
     * @param  \Closure(Builder): Builder  $narrow
     */
    public function __construct(public bool $isLookedUp, private \Closure $narrow)
    {
    }

    /** @param  Builder  $records  the rows of the type, as "t" */
    public function narrow(Builder $records): Builder
    {
        return ($this->narrow)($records);
    }
}
