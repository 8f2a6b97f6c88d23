<?php

declare(strict_types=1);

namespace App\Http\People;

use OpenApi\Attributes as OA;

/** When somebody is absent, and who stands in. */
#[OA\Schema]
final readonly class AbsenceResource
{
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property(format: 'date-time')]
        public string $from,
        #[OA\Property(format: 'date-time')]
        public string $until,
        #[OA\Property(description: 'Instead of the usual deputy.')]
        public ?int $deputyId,
    ) {
    }
}
