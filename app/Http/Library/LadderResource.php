<?php

declare(strict_types=1);

namespace App\Http\Library;

use OpenApi\Attributes as OA;

/** A ladder kept in Setup. */
#[OA\Schema]
final readonly class LadderResource
{
    /**
     * @param  list<array<string, mixed>>  $rungs
     * @param  list<string>  $said
     * @param  list<string>  $rules
     */
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property]
        public string $name,
        #[OA\Property]
        public int $version,
        #[OA\Property(items: new OA\Items(type: 'object', additionalProperties: true))]
        public array $rungs,
        #[OA\Property(items: new OA\Items(type: 'string'))]
        public array $said,
        #[OA\Property(items: new OA\Items(type: 'string'))]
        public array $rules,
    ) {
    }
}
