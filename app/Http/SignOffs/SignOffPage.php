<?php

declare(strict_types=1);

namespace App\Http\SignOffs;

use OpenApi\Attributes as OA;

/** Sign-offs, and how many there are in all. */
#[OA\Schema]
final readonly class SignOffPage
{
    /** @param  list<SignOffResource>  $signOffs */
    public function __construct(
        #[OA\Property(items: new OA\Items(type: SignOffResource::class))]
        public array $signOffs,
        #[OA\Property]
        public int $total,
        #[OA\Property(description: 'How many wait for whoever asks.')]
        public int $mineWaiting,
        #[OA\Property(description: 'Give it as “after” to go on; null where these were all.')]
        public ?int $next = null,
    ) {
    }
}
