<?php

declare(strict_types=1);

namespace App\Http\SignOffs;

use App\Http\Ledger\EntryResource;
use OpenApi\Attributes as OA;

/** What rules made of the last thing that happened to a record before a moment. */
#[OA\Schema]
final readonly class MomentAnswers
{
    /**
     * @param  list<AnswerResource>  $answers
     */
    public function __construct(
        #[OA\Property]
        public EntryResource $entry,
        #[OA\Property(items: new OA\Items(type: AnswerResource::class))]
        public array $answers,
    ) {
    }
}
