<?php

declare(strict_types=1);

namespace App\Http\Api\Shape;

use OpenApi\Attributes as OA;

/** How many tasks fall due on a day. */
#[OA\Schema]
final readonly class DayShape
{
    public function __construct(
        #[OA\Property(format: 'date')]
        public string $date,
        #[OA\Property]
        public int $due,
        #[OA\Property]
        public bool $weekend,
    ) {
    }
}
