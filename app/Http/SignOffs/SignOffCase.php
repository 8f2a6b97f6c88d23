<?php

declare(strict_types=1);

namespace App\Http\SignOffs;

use App\Http\Timing\AheadStepResource;
use OpenApi\Attributes as OA;

/** A sign-off with all that whoever decides wants to see. */
#[OA\Schema]
final readonly class SignOffCase
{
    /**
     * @param  list<CaseChangeResource>  $changed
     * @param  list<AheadStepResource>  $ahead
     * @param  list<SignOffResource>  $before
     * @param  list<string>  $correct
     */
    public function __construct(
        #[OA\Property]
        public SignOffResource $signOff,
        #[OA\Property(description: 'Whether the record was new: then all of it is news.')]
        public bool $isNew,
        #[OA\Property(description: 'What the change was that asked for it.', items: new OA\Items(type: CaseChangeResource::class))]
        public array $changed,
        #[OA\Property(description: 'What is still to come, as things are now.', items: new OA\Items(type: AheadStepResource::class))]
        public array $ahead,
        #[OA\Property(
            description: 'Decided before about the same customer, the latest first.',
            items: new OA\Items(type: SignOffResource::class),
        )]
        public array $before,
        #[OA\Property(description: 'Names of the fields that whoever asks may correct.', items: new OA\Items(type: 'string'))]
        public array $correct,
        #[OA\Property(description: 'The amount it is about, in words; null when the step looks at none.')]
        public ?string $amount,
        #[OA\Property(description: 'Up to how much whoever asks may sign off, in words; null for nothing.')]
        public ?string $limit,
    ) {
    }
}
