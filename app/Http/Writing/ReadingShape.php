<?php

declare(strict_types=1);

namespace App\Http\Writing;

use App\Http\Records\RowShape;
use App\Http\Rules\ProblemShape;
use OpenApi\Attributes as OA;

/** A rule file as it reads: its rows, what is wrong with it, and the whole as a sentence. */
#[OA\Schema]
final readonly class ReadingShape
{
    /**
     * @param  list<RowShape>  $rows
     * @param  list<ProblemShape>  $problems
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(type: RowShape::class))]
        public array $rows,
        #[OA\Property(items: new OA\Items(type: ProblemShape::class))]
        public array $problems,
        #[OA\Property]
        public string $aloud,
    ) {
    }
}
