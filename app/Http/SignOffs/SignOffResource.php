<?php

declare(strict_types=1);

namespace App\Http\SignOffs;

use OpenApi\Attributes as OA;

/** A sign-off, with everybody who was asked so far. */
#[OA\Schema]
final readonly class SignOffResource
{
    /** @param  list<SeatResource>  $seats */
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property(enum: ['waiting', 'agreed', 'declined', 'withdrawn', 'timed_out', 'stopped'])]
        public string $status,
        #[OA\Property]
        public string $why,
        #[OA\Property]
        public string $recordType,
        #[OA\Property]
        public int $recordId,
        #[OA\Property]
        public string $recordNumber,
        #[OA\Property]
        public string $recordTitle,
        #[OA\Property(description: 'Whose save asked for it; null when nobody in person did.')]
        public ?string $asker,
        #[OA\Property]
        public int $rule,
        #[OA\Property]
        public string $ruleName,
        #[OA\Property(description: 'The entry that asked for it.')]
        public int $entry,
        #[OA\Property(description: 'The step at hand, from 1.')]
        public int $step,
        #[OA\Property(description: 'How many have to agree at this step.')]
        public int $needed,
        #[OA\Property(format: 'date-time')]
        public string $startedAt,
        #[OA\Property(format: 'date-time', nullable: true)]
        public ?string $endedAt,
        #[OA\Property(items: new OA\Items(type: SeatResource::class))]
        public array $seats,
        #[OA\Property(description: 'Whether it waits for whoever asks.')]
        public bool $mine,
        #[OA\Property(description: 'Whether whoever asks may withdraw it.')]
        public bool $mayWithdraw,
        #[OA\Property(description: 'Whether whoever asks may answer questions that are put back.')]
        public bool $mayAnswerBack,
        #[OA\Property(description: 'Whether it keeps the record locked just now.')]
        public bool $locks,
    ) {
    }
}
