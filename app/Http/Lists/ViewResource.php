<?php

declare(strict_types=1);

namespace App\Http\Lists;

use OpenApi\Attributes as OA;

/** A view of a list, as it is kept. */
#[OA\Schema]
final readonly class ViewResource
{
    /**
     * @param  list<string>  $columns
     * @param  list<string>  $sort
     * @param  list<string>  $sums
     * @param  ?array<array-key, mixed>  $filter
     * @param  list<string>  $gone
     */
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property]
        public int $version,
        #[OA\Property]
        public string $name,
        #[OA\Property]
        public string $ownerName,
        #[OA\Property(description: 'Whether whoever asks may change it.')]
        public bool $mayChange,
        #[OA\Property(enum: ['nobody', 'team', 'everybody'])]
        public string $shared,
        #[OA\Property(items: new OA\Items(type: 'string'))]
        public array $columns,
        #[OA\Property(items: new OA\Items(type: 'string'))]
        public array $sort,
        #[OA\Property(nullable: true)]
        public ?string $group,
        #[OA\Property(items: new OA\Items(type: 'string'))]
        public array $sums,
        #[OA\Property(enum: ['table', 'board'])]
        public string $layout,
        #[OA\Property(description: 'A condition, as a rule file writes it.', type: 'object', nullable: true, additionalProperties: true)]
        public ?array $filter,
        #[OA\Property]
        public string $search,
        #[OA\Property(description: 'What it names and there is no more: it was left out.', items: new OA\Items(type: 'string'))]
        public array $gone,
    ) {
    }
}
