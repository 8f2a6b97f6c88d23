<?php

declare(strict_types=1);

namespace App\Http\Inbound;

use OpenApi\Attributes as OA;

/** The letters on the shelf of the mail room, the newest first. */
#[OA\Schema]
final readonly class ShelfPage
{
    /**
     * @param  list<ShelfLetter>  $letters
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(type: ShelfLetter::class))]
        public array $letters,
        #[OA\Property]
        public int $total,
    ) {
    }
}
