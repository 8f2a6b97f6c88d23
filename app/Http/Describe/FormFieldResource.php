<?php

declare(strict_types=1);

namespace App\Http\Describe;

use App\Http\Writing\OfferedResource;
use OpenApi\Attributes as OA;

/** A small field of a form. */
#[OA\Schema]
final readonly class FormFieldResource
{
    /**
     * @param  list<OfferedResource>  $options
     * @param  ?list<string>  $sides
     * @param  list<string>  $units
     */
    public function __construct(
        #[OA\Property(enum: ['time', 'number', 'choice', 'tick', 'clock'])]
        public string $sort,
        #[OA\Property(description: 'Key in the object; empty for keys of its own.')]
        public string $key,
        #[OA\Property]
        public string $label,
        #[OA\Property]
        public string $behind,
        #[OA\Property(description: 'Any JSON.', nullable: true)]
        public mixed $starts,
        #[OA\Property(description: 'Stands in the file also where it says what is usual.')]
        public bool $isNeeded,
        #[OA\Property]
        public ?int $least,
        #[OA\Property]
        public ?int $most,
        #[OA\Property(items: new OA\Items(type: OfferedResource::class))]
        public array $options,
        #[OA\Property(description: 'Words for after and before.', items: new OA\Items(type: 'string'), nullable: true)]
        public ?array $sides,
        #[OA\Property(description: 'Key of the choice that has to be made for it to lie before.')]
        public ?string $sidesWith,
        #[OA\Property]
        public bool $hasTime,
        #[OA\Property]
        public bool $hasClock,
        #[OA\Property(description: 'None for all.', items: new OA\Items(type: 'string'))]
        public array $units,
    ) {
    }
}
