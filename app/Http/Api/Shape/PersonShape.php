<?php

declare(strict_types=1);

namespace App\Http\Api\Shape;

use OpenApi\Attributes as OA;

/** Someone who works with the application. */
#[OA\Schema]
final readonly class PersonShape
{
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property]
        public string $handle,
        #[OA\Property]
        public string $name,
        #[OA\Property]
        public string $email,
        #[OA\Property]
        public string $role,
        #[OA\Property]
        public string $team,
        #[OA\Property]
        public ?int $managerId,
        #[OA\Property]
        public string $timeZone,
        #[OA\Property]
        public bool $active,
    ) {
    }
}
