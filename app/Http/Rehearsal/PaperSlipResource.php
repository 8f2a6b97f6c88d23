<?php

declare(strict_types=1);

namespace App\Http\Rehearsal;

use OpenApi\Attributes as OA;

/** A slip that was sent in a rehearsal, and what it asks. */
#[OA\Schema]
final readonly class PaperSlipResource
{
    /** @param  list<PaperQuestionResource>  $questions */
    public function __construct(
        #[OA\Property(description: 'The how-manieth of the rehearsal, from 1.')]
        public int $number,
        #[OA\Property]
        public string $subject,
        #[OA\Property(items: new OA\Items(ref: PaperQuestionResource::class))]
        public array $questions,
    ) {
    }
}
