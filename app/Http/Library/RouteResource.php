<?php

declare(strict_types=1);

namespace App\Http\Library;

use OpenApi\Attributes as OA;

/** A route of sign-offs that is kept under a name. */
#[OA\Schema]
final readonly class RouteResource
{
    /**
     * @param  list<array<string, mixed>>  $steps
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
        #[OA\Property(items: new OA\Items(type: 'object', additionalProperties: true))]
        public array $steps,
        #[OA\Property(description: 'As it reads in a sentence; empty when it cannot be said.')]
        public string $said,
        #[OA\Property(description: 'What has to be mended; null when it is sound.')]
        public ?string $problem,
        #[OA\Property(items: new OA\Items(type: 'string'))]
        public array $rules,
        #[OA\Property(description: 'How many sign-offs run on along what it was before.')]
        public int $running,
    ) {
    }
}
