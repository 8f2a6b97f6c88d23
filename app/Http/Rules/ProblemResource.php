<?php

declare(strict_types=1);

namespace App\Http\Rules;

use OpenApi\Attributes as OA;

/** What is wrong, at which field or word (a JSON Pointer). */
#[OA\Schema]
final readonly class ProblemResource
{
    public function __construct(
        #[OA\Property]
        public string $at,
        #[OA\Property]
        public string $code,
        #[OA\Property]
        public string $message,
        #[OA\Property(description: 'The character of a formula, counted from 1.')]
        public ?int $position = null,
    ) {
    }
}
