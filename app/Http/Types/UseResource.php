<?php

declare(strict_types=1);

namespace App\Http\Types;

use OpenApi\Attributes as OA;

/** Something that names a field. */
#[OA\Schema]
final readonly class UseResource
{
    public function __construct(
        #[OA\Property(description: 'Such as "rule" or "letter".')]
        public string $kind,
        #[OA\Property]
        public string $name,
        #[OA\Property(description: 'Where it is changed.')]
        public string $path,
    ) {
    }
}
