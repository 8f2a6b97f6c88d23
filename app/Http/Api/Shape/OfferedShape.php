<?php

declare(strict_types=1);

namespace App\Http\Api\Shape;

use OpenApi\Attributes as OA;

/** Something a word of a rule can become. */
#[OA\Schema]
final readonly class OfferedShape
{
    public function __construct(
        #[OA\Property]
        public string $label,
        #[OA\Property(description: 'Any JSON.', nullable: true)]
        public mixed $value,
        #[OA\Property]
        public string $group,
        #[OA\Property]
        public string $hint,
        #[OA\Property]
        public bool $merge,
    ) {
    }
}
