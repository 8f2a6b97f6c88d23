<?php

declare(strict_types=1);

namespace App\Http\SignOffs;

use App\Http\Ledger\EntryShape;
use OpenApi\Attributes as OA;

/** What rules made of the last thing that happened to a record before a moment. */
#[OA\Schema]
final readonly class MomentAnswers
{
    /**
     * @param  list<AnswerShape>  $answers
     */
    public function __construct(
        #[OA\Property]
        public EntryShape $entry,
        #[OA\Property(items: new OA\Items(type: AnswerShape::class))]
        public array $answers,
    ) {
    }
}
