<?php

declare(strict_types=1);

namespace App\Http\Lists;

use App\Http\Types\FieldResource;
use OpenApi\Attributes as OA;

/** A column of a list. */
#[OA\Schema]
final readonly class ColumnResource
{
    public function __construct(
        #[OA\Property(description: 'A field, a path such as "customer.plan", "number", "@since" or "@next": the key of its values.')]
        public string $of,
        #[OA\Property]
        public string $label,
        #[OA\Property(description: 'In pixels, where somebody chose it.', nullable: true)]
        public ?int $width,
        #[OA\Property]
        public bool $sortable,
        #[OA\Property(nullable: true)]
        public ?FieldResource $field,
    ) {
    }
}
