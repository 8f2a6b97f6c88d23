<?php

declare(strict_types=1);

namespace App\Http\Lists;

use App\Http\Describe\ProblemDocument;
use App\Http\Records\SavedResource;
use OpenApi\Attributes as OA;

/** What became of one of several records that were sent together. */
#[OA\Schema]
final readonly class SavedOne
{
    public function __construct(
        #[OA\Property(enum: ['created', 'changed', 'refused'])]
        public string $result,
        #[OA\Property(nullable: true)]
        public ?SavedResource $saved,
        #[OA\Property(nullable: true)]
        public ?ProblemDocument $problem,
    ) {
    }
}
