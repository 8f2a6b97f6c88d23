<?php

declare(strict_types=1);

namespace App\Http\Outbound;

use OpenApi\Attributes as OA;

/** A call of another system, on its way or ended. */
#[OA\Schema]
final readonly class CallResource
{
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property]
        public string $endpoint,
        #[OA\Property]
        public string $rule,
        #[OA\Property]
        public string $recordType,
        #[OA\Property]
        public int $recordId,
        #[OA\Property]
        public string $recordNumber,
        #[OA\Property]
        public string $recordTitle,
        #[OA\Property(enum: ['waiting', 'succeeded', 'failed'])]
        public string $status,
        #[OA\Property]
        public string $madeAt,
        #[OA\Property]
        public ?string $endedAt,
        #[OA\Property]
        public int $tries,
        #[OA\Property(description: 'How often the other side may have taken it without saying so.')]
        public int $unsure,
        #[OA\Property(description: 'What was sent, as JSON.')]
        public string $payload,
        #[OA\Property(description: 'The status that HTTP gave; null when nothing came back.')]
        public ?int $answerStatus,
        #[OA\Property(description: 'What came back, cut where it is long.')]
        public string $answer,
        #[OA\Property]
        public string $trouble,
    ) {
    }
}
