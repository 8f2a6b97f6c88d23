<?php

declare(strict_types=1);

namespace App\Http\Slips;

use OpenApi\Attributes as OA;

/** A reply slip that is kept under a name. */
#[OA\Schema]
final readonly class SlipFormResource
{
    /**
     * @param  list<array<string, mixed>>  $asks
     * @param  list<string>  $rules
     */
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property]
        public string $name,
        #[OA\Property]
        public string $recordType,
        #[OA\Property]
        public int $version,
        #[OA\Property]
        public string $subject,
        #[OA\Property]
        public string $body,
        #[OA\Property(items: new OA\Items(type: 'object', additionalProperties: true))]
        public array $asks,
        #[OA\Property(description: 'What it asks, as it reads; empty when it cannot be said.')]
        public string $said,
        #[OA\Property(description: 'What has to be mended; null when it is sound.')]
        public ?string $problem,
        #[OA\Property(items: new OA\Items(type: 'string'))]
        public array $rules,
    ) {
    }
}
