<?php

declare(strict_types=1);

namespace App\Http\SignOffs;

use OpenApi\Attributes as OA;

/** Somebody's part in a sign-off. */
#[OA\Schema]
final readonly class SeatResource
{
    /** @param  list<TalkResource>  $talk  what they asked back and were answered */
    public function __construct(
        #[OA\Property(description: 'Of the route, from 1.')]
        public int $step,
        #[OA\Property]
        public int $personId,
        #[OA\Property]
        public string $person,
        #[OA\Property(enum: ['waiting', 'yes', 'no', 'passed_on', 'over'])]
        public string $state,
        #[OA\Property(format: 'date-time')]
        public string $askedAt,
        #[OA\Property(format: 'date-time', nullable: true)]
        public ?string $dueAt,
        #[OA\Property(format: 'date-time', nullable: true)]
        public ?string $at,
        #[OA\Property]
        public string $comment,
        #[OA\Property(description: 'The route answered for them.')]
        public bool $byItself,
        #[OA\Property(description: 'Among the seats of the sign-off, from 0.')]
        public int $place,
        #[OA\Property(description: 'The absent person for whom they decide; null for themselves.')]
        public ?string $standsFor,
        #[OA\Property(description: 'Whether a question of theirs is open, and their time stands still.')]
        public bool $asksBack,
        #[OA\Property(items: new OA\Items(type: TalkResource::class))]
        public array $talk,
    ) {
    }
}
