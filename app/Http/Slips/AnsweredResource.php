<?php

declare(strict_types=1);

namespace App\Http\Slips;

use OpenApi\Attributes as OA;

/** What became of one of several sign-offs that were answered at once. */
#[OA\Schema]
final readonly class AnsweredResource
{
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property(description: 'Why it was not taken; null when it was.', nullable: true)]
        public ?string $problem,
    ) {
    }
}
