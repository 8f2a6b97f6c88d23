<?php

declare(strict_types=1);

namespace App\Http\Slips;

use OpenApi\Attributes as OA;

/** The page of a slip as it would look. */
#[OA\Schema]
final readonly class SlipPreview
{
    public function __construct(
        #[OA\Property(description: 'A whole page of HTML.')]
        public string $html,
        #[OA\Property(description: 'The record whose values stand in it; null when there is none yet.')]
        public ?string $of,
    ) {
    }
}
