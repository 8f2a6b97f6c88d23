<?php

declare(strict_types=1);

namespace App\Http\Rehearsal;

use App\Http\Describe\SaysObjects;
use OpenApi\Attributes as OA;

/** A change of the rule file that follows a remark's advice: what is put at the place; null takes away what stands there. */
#[OA\Schema]
final readonly class FixResource implements \JsonSerializable
{
    use SaysObjects;

    /**
     * @param  array<array-key, mixed>|null  $put
     */
    public function __construct(
        #[OA\Property]
        public string $label,
        #[OA\Property]
        public string $at,
        #[OA\Property(description: 'What is put there, as {"value": …}.', type: 'object', nullable: true, additionalProperties: true)]
        public ?array $put,
    ) {
    }
}
