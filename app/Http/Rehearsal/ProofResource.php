<?php

declare(strict_types=1);

namespace App\Http\Rehearsal;

use OpenApi\Attributes as OA;

/** A rehearsal kept as a test of a rule. */
#[OA\Schema]
final readonly class ProofResource
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
        #[OA\Property(description: 'Whether it has been played since the rules last changed.')]
        public bool $checked,
        #[OA\Property(items: new OA\Items(type: ProofLine::class))]
        public array $lines,
        #[OA\Property]
        public string $keptBy,
        #[OA\Property(format: 'date-time')]
        public string $keptAt,
        #[OA\Property]
        public ?string $acceptedBy,
        #[OA\Property(format: 'date-time')]
        public ?string $acceptedAt,
    ) {
    }
}
