<?php

declare(strict_types=1);

namespace App\Http\Lists;

use OpenApi\Attributes as OA;

/** What work on many records would come to. */
#[OA\Schema]
final readonly class BulkPreviewResource
{
    /**
     * @param  list<BulkRuleResource>  $rules
     * @param  list<BulkReasonResource>  $refused
     */
    public function __construct(
        #[OA\Property(description: 'How many records it is about.')]
        public int $total,
        #[OA\Property(description: 'On how many of them it was tried; the rest is guessed from these.')]
        public int $tried,
        #[OA\Property(description: 'Of those, how many would stay as they are.')]
        public int $same,
        #[OA\Property(description: 'The rules that would answer, and how often.', items: new OA\Items(type: BulkRuleResource::class))]
        public array $rules,
        #[OA\Property(description: 'Why some would be refused, and how many.', items: new OA\Items(type: BulkReasonResource::class))]
        public array $refused,
    ) {
    }
}
