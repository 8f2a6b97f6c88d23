<?php

declare(strict_types=1);

namespace App\Http\People;

use OpenApi\Attributes as OA;

/** What is somebody's, and would be another's if they left. */
#[OA\Schema]
final readonly class LeavingResource
{
    /**
     * @param  list<LeavingCount>  $records
     * @param  list<string>  $rules
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(type: LeavingCount::class))]
        public array $records,
        #[OA\Property]
        public int $tasks,
        #[OA\Property]
        public int $signOffs,
        #[OA\Property(description: 'Slips that wait for their answer.')]
        public int $slips,
        #[OA\Property(description: 'Whom they manage.')]
        public int $people,
        #[OA\Property(description: 'Rules that name them; somebody has to look at those.', items: new OA\Items(type: 'string'))]
        public array $rules,
    ) {
    }
}
