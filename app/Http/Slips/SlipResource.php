<?php

declare(strict_types=1);

namespace App\Http\Slips;

use OpenApi\Attributes as OA;

/** A reply slip that was sent, with everybody whose turn it was. */
#[OA\Schema]
final readonly class SlipResource
{
    /**
     * @param  list<SlipTurnResource>  $turns
     * @param  list<SlipAnswerResource>  $answers
     */
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property]
        public string $subject,
        #[OA\Property]
        public string $recordType,
        #[OA\Property]
        public int $recordId,
        #[OA\Property]
        public string $recordNumber,
        #[OA\Property]
        public string $recordTitle,
        #[OA\Property]
        public string $rule,
        #[OA\Property(enum: ['waiting', 'answered', 'run_out', 'withdrawn'])]
        public string $status,
        #[OA\Property]
        public string $statusSaid,
        #[OA\Property]
        public string $sentAt,
        #[OA\Property(description: 'When it was answered, or ended otherwise.')]
        public ?string $endedAt,
        #[OA\Property(description: 'When it goes on by itself: a reminder, or the next in the list.')]
        public ?string $nextAt,
        #[OA\Property(items: new OA\Items(ref: SlipTurnResource::class))]
        public array $turns,
        #[OA\Property(items: new OA\Items(ref: SlipAnswerResource::class))]
        public array $answers,
        #[OA\Property(description: 'Whether it waits for whoever asks.')]
        public bool $isMine,
        #[OA\Property(description: 'Whether there is a list along which it can be passed on.')]
        public bool $hasList,
    ) {
    }
}
