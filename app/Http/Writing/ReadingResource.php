<?php

declare(strict_types=1);

namespace App\Http\Writing;

use App\Http\Records\RowResource;
use App\Http\Rules\ProblemResource;
use OpenApi\Attributes as OA;

/** A rule file as it reads: its rows, what is wrong with it, and the whole as a sentence. */
#[OA\Schema]
final readonly class ReadingResource
{
    /**
     * @param  list<RowResource>  $rows
     * @param  list<ProblemResource>  $problems
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(type: RowResource::class))]
        public array $rows,
        #[OA\Property(items: new OA\Items(type: ProblemResource::class))]
        public array $problems,
        #[OA\Property]
        public string $aloud,
    ) {
    }
}
