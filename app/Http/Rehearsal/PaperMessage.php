<?php

declare(strict_types=1);

namespace App\Http\Rehearsal;

use OpenApi\Attributes as OA;

/** A message as it would be read. */
#[OA\Schema]
final readonly class PaperMessage
{
    public function __construct(
        #[OA\Property(enum: ['email', 'sms', 'app'])]
        public string $channel,
        #[OA\Property]
        public string $to,
        #[OA\Property]
        public string $subject,
        #[OA\Property]
        public string $text,
        #[OA\Property]
        public string $path,
    ) {
    }
}
