<?php

declare(strict_types=1);

namespace App\Http\Outbound;

use OpenApi\Attributes as OA;

/** By which way somebody hears of what happens for them. */
#[OA\Schema]
final readonly class NoticeWayResource
{
    public function __construct(
        #[OA\Property(enum: ['note', 'task', 'mention'])]
        public string $kind,
        #[OA\Property]
        public string $label,
        #[OA\Property(description: 'By the bell alone, by a letter at once, or in one letter on the morning of a working day.',
            enum: ['bell', 'letter', 'morning'])]
        public string $way,
    ) {
    }
}
