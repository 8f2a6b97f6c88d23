<?php

declare(strict_types=1);

namespace App\Http\Writing;

use OpenApi\Attributes as OA;

/** A piece of a sentence; with a place in the rule file where it can be changed. */
#[OA\Schema]
final readonly class WordResource
{
    public function __construct(
        #[OA\Property]
        public string $text,
        #[OA\Property(enum: ['glue', 'field', 'value', 'person', 'missing', 'more'])]
        public string $role,
        #[OA\Property]
        public ?string $at,
        #[OA\Property(nullable: true)]
        public ?EditorResource $editor,
        #[OA\Property(description: 'The record type it is seen from.')]
        public string $on,
    ) {
    }
}
