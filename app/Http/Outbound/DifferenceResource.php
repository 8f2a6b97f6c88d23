<?php

declare(strict_types=1);

namespace App\Http\Outbound;

use OpenApi\Attributes as OA;

/** Something on which we and the accounting system are not in step. */
#[OA\Schema]
final readonly class DifferenceResource
{
    /** @param  list<DifferenceFieldResource>  $fields */
    public function __construct(
        #[OA\Property(enum: ['missing_there', 'missing_here', 'differs'])]
        public string $kind,
        #[OA\Property(description: 'By which they know it.')]
        public string $number,
        #[OA\Property]
        public ?int $recordId,
        #[OA\Property]
        public string $recordType,
        #[OA\Property]
        public string $title,
        #[OA\Property(items: new OA\Items(ref: DifferenceFieldResource::class))]
        public array $fields,
    ) {
    }
}
