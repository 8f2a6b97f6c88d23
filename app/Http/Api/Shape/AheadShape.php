<?php

declare(strict_types=1);

namespace App\Http\Api\Shape;

use OpenApi\Attributes as OA;

/** Something pencilled in for a record. */
#[OA\Schema]
final readonly class AheadShape
{
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property]
        public string $kind,
        #[OA\Property(format: 'date-time')]
        public string $due,
        #[OA\Property]
        public string $title,
        #[OA\Property]
        public ?string $person,
        #[OA\Property]
        public ?string $ruleName,
        #[OA\Property]
        public ?int $task,
    ) {
    }
}
