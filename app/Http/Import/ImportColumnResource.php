<?php

declare(strict_types=1);

namespace App\Http\Import;

use OpenApi\Attributes as OA;

/** A column of a file. */
#[OA\Schema]
final readonly class ImportColumnResource
{
    /** @param  list<string>  $samples */
    public function __construct(
        #[OA\Property]
        public int $place,
        #[OA\Property]
        public string $head,
        #[OA\Property(items: new OA\Items(type: 'string'))]
        public array $samples,
        #[OA\Property(description: 'The field it is for, or "number"; null where it is left out.', nullable: true)]
        public ?string $field,
    ) {
    }
}
