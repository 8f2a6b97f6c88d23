<?php

declare(strict_types=1);

namespace App\Http\Records;

use OpenApi\Attributes as OA;

/** A file on a record. */
#[OA\Schema]
final readonly class FileResource
{
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property]
        public string $name,
        #[OA\Property]
        public string $mediaType,
        #[OA\Property]
        public int $bytes,
        #[OA\Property]
        public ?string $author,
        #[OA\Property(format: 'date-time')]
        public string $at,
    ) {
    }
}
