<?php

declare(strict_types=1);

namespace App\Http\Setup;

use OpenApi\Attributes as OA;

/** A letter taken from the shelf and opened. */
#[OA\Schema]
final readonly class OpenLetter
{
    /**
     * @param  list<string>  $headers
     */
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
        public string $cc,
        #[OA\Property]
        public ?string $replyTo,
        #[OA\Property]
        public string $subject,
        #[OA\Property]
        public string $html,
        #[OA\Property]
        public string $text,
        #[OA\Property(items: new OA\Items(type: 'string'))]
        public array $headers,
    ) {
    }
}
