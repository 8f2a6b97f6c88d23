<?php

declare(strict_types=1);

namespace App\Http\Records;

use OpenApi\Attributes as OA;

/** A field that somebody has changed since an entry set it. */
#[OA\Schema]
final readonly class ConflictResource
{
    public function __construct(
        #[OA\Property]
        public int $entry,
        #[OA\Property]
        public string $type,
        #[OA\Property]
        public int $record,
        #[OA\Property]
        public string $number,
        #[OA\Property]
        public string $label,
        #[OA\Property]
        public string $was,
        #[OA\Property]
        public string $set,
        #[OA\Property]
        public string $is,
    ) {
    }
}
