<?php

declare(strict_types=1);

namespace App\Http\Outbound;

use OpenApi\Attributes as OA;

/** Something that happened for somebody. */
#[OA\Schema]
final readonly class NoticeResource
{
    public function __construct(
        #[OA\Property(
            description: 'A note of a rule, a task that was given, or a comment that names them.', enum: ['note', 'task', 'mention'],
        )]
        public string $kind,
        #[OA\Property(format: 'date-time')]
        public string $at,
        #[OA\Property]
        public string $title,
        #[OA\Property(nullable: true)]
        public ?string $recordType,
        #[OA\Property(nullable: true)]
        public ?int $recordId,
        #[OA\Property]
        public string $recordNumber,
        #[OA\Property(description: 'Whether it came since they last looked.')]
        public bool $isNew,
    ) {
    }
}
