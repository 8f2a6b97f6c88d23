<?php

declare(strict_types=1);

namespace App\Http\Rehearsal;

use OpenApi\Attributes as OA;

/** An answer to choose from. */
#[OA\Schema]
final readonly class PaperChoiceResource
{
    public function __construct(
        #[OA\Property]
        public string $value,
        #[OA\Property]
        public string $label,
    ) {
    }
}
