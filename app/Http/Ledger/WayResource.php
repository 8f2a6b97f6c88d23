<?php

declare(strict_types=1);

namespace App\Http\Ledger;

use App\Http\Describe\FormFieldResource;
use OpenApi\Attributes as OA;

/** One way to fill in a form: what is then put, and the fields that say the rest. */
#[OA\Schema]
final readonly class WayResource
{
    /** @param  list<FormFieldResource>  $fields */
    public function __construct(
        #[OA\Property]
        public string $label,
        #[OA\Property(description: 'An object that the fields add to; null where the place is left out.', nullable: true)]
        public mixed $with,
        #[OA\Property(items: new OA\Items(type: FormFieldResource::class))]
        public array $fields,
        #[OA\Property(description: 'What else stands there stays.')]
        public bool $keeps,
    ) {
    }
}
