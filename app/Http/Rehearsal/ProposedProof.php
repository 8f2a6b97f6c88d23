<?php

declare(strict_types=1);

namespace App\Http\Rehearsal;

use App\Http\Describe\SaysObjects;
use OpenApi\Attributes as OA;

/** A case at a rule's boundary that could be kept as a proof. */
#[OA\Schema]
final readonly class ProposedProof implements \JsonSerializable
{
    use SaysObjects;

    /**
     * @param  array<array-key, mixed>  $script
     * @param  list<string>  $outline
     */
    public function __construct(
        #[OA\Property]
        public string $name,
        #[OA\Property(type: 'object', additionalProperties: true)]
        public array $script,
        #[OA\Property(items: new OA\Items(type: 'string'))]
        public array $outline,
        #[OA\Property]
        public bool $fires,
    ) {
    }
}
