<?php

declare(strict_types=1);

namespace App\Http\Rehearsal;

use OpenApi\Attributes as OA;

/** A task that a rehearsal gave. */
#[OA\Schema]
final readonly class PaperTaskResource
{
    public function __construct(
        #[OA\Property]
        public int $number,
        #[OA\Property]
        public string $title,
        #[OA\Property]
        public ?string $person,
        #[OA\Property]
        public string $path,
        #[OA\Property(format: 'date-time')]
        public ?string $due,
        #[OA\Property(format: 'date-time')]
        public ?string $done,
    ) {
    }
}
