<?php

declare(strict_types=1);

namespace App\Http\Rehearsal;

use OpenApi\Attributes as OA;

/** A proof, played with a rule as it is being written. */
#[OA\Schema]
final readonly class TriedProof
{
    /**
     * @param  list<ProofLine>  $lines
     */
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property]
        public int $rule,
        #[OA\Property]
        public string $ruleName,
        #[OA\Property]
        public string $name,
        #[OA\Property]
        public bool $holds,
        #[OA\Property(items: new OA\Items(type: ProofLine::class))]
        public array $lines,
    ) {
    }
}
