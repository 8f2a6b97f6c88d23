<?php

declare(strict_types=1);

namespace App\Http\Ledger;

use App\Http\Records\ConflictResource;
use OpenApi\Attributes as OA;

/** What a reversal would come to. */
#[OA\Schema]
final readonly class ReversalPreview
{
    /**
     * @param  list<int>  $entries
     * @param  list<ConflictResource>  $conflicts
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(type: 'integer'))]
        public array $entries,
        #[OA\Property]
        public int $fields,
        #[OA\Property]
        public int $tasks,
        #[OA\Property]
        public int $lines,
        #[OA\Property(description: 'Sign-offs that wait and are withdrawn.')]
        public int $signOffs,
        #[OA\Property]
        public int $slips,
        #[OA\Property(description: 'Messages that stay sent.')]
        public int $sent,
        #[OA\Property(items: new OA\Items(type: ConflictResource::class))]
        public array $conflicts,
    ) {
    }
}
