<?php

declare(strict_types=1);

namespace App\Http\Records;

use App\Http\Timing\RunnableResource;
use OpenApi\Attributes as OA;

/** What belongs to a record besides its fields and its account. */
#[OA\Schema]
final readonly class BesideResource
{
    /**
     * @param  list<FileResource>  $files
     * @param  list<FollowerResource>  $followers
     * @param  list<GuardResource>  $guards
     * @param  list<RunnableResource>  $runnable
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(type: FileResource::class))]
        public array $files,
        #[OA\Property(items: new OA\Items(type: FollowerResource::class))]
        public array $followers,
        #[OA\Property(items: new OA\Items(type: GuardResource::class))]
        public array $guards,
        #[OA\Property(items: new OA\Items(type: RunnableResource::class))]
        public array $runnable,
    ) {
    }
}
