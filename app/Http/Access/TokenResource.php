<?php

declare(strict_types=1);

namespace App\Http\Access;

use OpenApi\Attributes as OA;

/** A personal API token; the token itself is shown only once, when it is made. */
#[OA\Schema]
final readonly class TokenResource
{
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property]
        public string $name,
        #[OA\Property]
        public ?string $token,
        #[OA\Property(format: 'date-time')]
        public string $createdAt,
        #[OA\Property(format: 'date-time', nullable: true)]
        public ?string $lastUsedAt,
        #[OA\Property(description: 'After that it is good no more; null for no end.', format: 'date-time', nullable: true)]
        public ?string $until,
        #[OA\Property(description: 'Whether it may all that its person may, work on records and tasks, or only read.', enum: [
            '*', 'records', 'reading',
        ])]
        public string $scope,
    ) {
    }
}
