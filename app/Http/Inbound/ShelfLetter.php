<?php

declare(strict_types=1);

namespace App\Http\Inbound;

use OpenApi\Attributes as OA;

/** A letter on the shelf of the mail room. */
#[OA\Schema]
final readonly class ShelfLetter
{
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property(enum: ['email', 'sms'])]
        public string $kind,
        #[OA\Property(format: 'date-time')]
        public string $at,
        #[OA\Property]
        public string $sender,
        #[OA\Property]
        public string $recipients,
        #[OA\Property]
        public string $subject,
        #[OA\Property]
        public string $glimpse,
    ) {
    }
}
