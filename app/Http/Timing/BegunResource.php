<?php

declare(strict_types=1);

namespace App\Http\Timing;

use OpenApi\Attributes as OA;

/** A kind of line offered, with what a new one is. */
#[OA\Schema]
final readonly class BegunResource
{
    /** What stands for the name of the line in those that it brings; the page puts a free one there. */
    public const NAME = '…';

    /**
     * @param  array<string, mixed>  $begins
     * @param  list<array<string, mixed>>  $brings
     */
    public function __construct(
        #[OA\Property]
        public string $kind,
        #[OA\Property]
        public string $label,
        #[OA\Property(description: 'As a rule file writes it.', type: 'object')]
        public array $begins,
        #[OA\Property(
            description: 'Lines that a new one brings along. Its name is … there.', items: new OA\Items(type: 'object'),
        )]
        public array $brings = [],
    ) {
    }
}
