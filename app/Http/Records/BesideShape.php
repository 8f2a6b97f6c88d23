<?php

declare(strict_types=1);

namespace App\Http\Records;

use App\Http\Timing\RunnableShape;
use OpenApi\Attributes as OA;

/** What belongs to a record besides its fields and its account. */
#[OA\Schema]
final readonly class BesideShape
{
    /**
     * @param  list<FileShape>  $files
     * @param  list<FollowerShape>  $followers
     * @param  list<GuardShape>  $guards
     * @param  list<RunnableShape>  $runnable
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(type: FileShape::class))]
        public array $files,
        #[OA\Property(items: new OA\Items(type: FollowerShape::class))]
        public array $followers,
        #[OA\Property(items: new OA\Items(type: GuardShape::class))]
        public array $guards,
        #[OA\Property(items: new OA\Items(type: RunnableShape::class))]
        public array $runnable,
    ) {
    }
}
