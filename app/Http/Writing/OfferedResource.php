<?php

declare(strict_types=1);

namespace App\Http\Writing;

use App\Http\Describe\SaysObjects;
use OpenApi\Attributes as OA;

/** Something a word of a rule can become. */
#[OA\Schema]
final readonly class OfferedResource implements \JsonSerializable
{
    use SaysObjects;

    /** @param  array<string, mixed>  $also */
    public function __construct(
        #[OA\Property]
        public string $label,
        #[OA\Property(description: 'Any JSON.', nullable: true)]
        public mixed $value,
        #[OA\Property]
        public string $group,
        #[OA\Property]
        public string $hint,
        #[OA\Property]
        public bool $merge,
        #[OA\Property(description: 'The place it is put; null for the one that was asked about.')]
        public ?string $at,
        #[OA\Property(description: 'Whether it stands there; null where its value tells.')]
        public ?bool $isChosen,
        #[OA\Property(description: 'What is put besides, by JSON Pointer.', type: 'object')]
        public array $also,
    ) {
    }
}
