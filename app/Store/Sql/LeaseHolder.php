<?php

declare(strict_types=1);

namespace App\Store\Sql;

use App\Models\Columns;
use App\Models\LedgerModel;
use Illuminate\Database\Eloquent\Builder;

/** One worker among many whose leases bear its name: what has gone over to another is not its to go on with. */
final readonly class LeaseHolder
{
    /** What a row becomes when it is given back. */
    public const FREE = ['leased_until' => null, 'leased_by' => null];

    private const LONGEST_NAME = 40;

    private string $name;

    public function __construct()
    {
        $this->name = substr(gethostname().':'.getmypid().':'.bin2hex(random_bytes(4)), -self::LONGEST_NAME);
    }

    /** @return array{leased_until: string, leased_by: string} what a row becomes that it takes, or goes on holding */
    public function lease(int $seconds = Lease::SECONDS): array
    {
        return ['leased_until' => Columns::moment(Lease::until($seconds)), 'leased_by' => $this->name];
    }

    /**
     * @template T of LedgerModel
     *
     * @param  Builder<T>  $work
     * @return Builder<T> what of it is still its own
     */
    public function own(Builder $work): Builder
    {
        return $work->where('leased_by', $this->name);
    }
}
