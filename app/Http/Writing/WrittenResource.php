<?php

declare(strict_types=1);

namespace App\Http\Writing;

use OpenApi\Attributes as OA;

/** A draft after it was kept. */
#[OA\Schema]
final readonly class WrittenResource
{
    public function __construct(
        #[OA\Property]
        public int $draftVersion,
        #[OA\Property(format: 'date-time')]
        public string $draftAt,
        #[OA\Property]
        public ReadingResource $reading,
    ) {
    }
}
