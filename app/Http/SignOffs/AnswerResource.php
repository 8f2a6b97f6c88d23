<?php

declare(strict_types=1);

namespace App\Http\SignOffs;

use App\Http\Ledger\VerdictResource;
use OpenApi\Attributes as OA;

/** The answer of one rule to one save. */
#[OA\Schema]
final readonly class AnswerResource
{
    public function __construct(
        #[OA\Property]
        public int $rule,
        #[OA\Property]
        public string $name,
        #[OA\Property]
        public int $page,
        #[OA\Property]
        public ?int $firedIn,
        #[OA\Property]
        public VerdictResource $verdict,
    ) {
    }
}
