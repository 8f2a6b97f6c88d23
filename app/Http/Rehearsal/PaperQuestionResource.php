<?php

declare(strict_types=1);

namespace App\Http\Rehearsal;

use OpenApi\Attributes as OA;

/** A question of a slip in a rehearsal. */
#[OA\Schema]
final readonly class PaperQuestionResource
{
    /** @param  list<PaperChoiceResource>  $choices */
    public function __construct(
        #[OA\Property]
        public string $asked,
        #[OA\Property(description: 'As the kind of a field, or file.')]
        public string $type,
        #[OA\Property]
        public bool $isNeeded,
        #[OA\Property(items: new OA\Items(ref: PaperChoiceResource::class))]
        public array $choices,
    ) {
    }
}
