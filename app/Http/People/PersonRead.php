<?php

declare(strict_types=1);

namespace App\Http\People;

use OpenApi\Attributes as OA;

/** One line of a list of people. */
#[OA\Schema]
final readonly class PersonRead
{
    public function __construct(
        #[OA\Property]
        public string $name,
        #[OA\Property]
        public string $email,
        #[OA\Property]
        public string $role,
        #[OA\Property]
        public string $team,
        #[OA\Property]
        public string $manager,
    ) {
    }
}
