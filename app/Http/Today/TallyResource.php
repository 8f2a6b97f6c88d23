<?php

declare(strict_types=1);

namespace App\Http\Today;

use OpenApi\Attributes as OA;

/** What a rehearsal came to, counted. */
#[OA\Schema]
final readonly class TallyResource
{
    /**
     * @param  list<string>  $ends
     */
    public function __construct(
        #[OA\Property]
        public int $emails,
        #[OA\Property]
        public int $texts,
        #[OA\Property]
        public int $notes,
        #[OA\Property]
        public int $tasks,
        #[OA\Property]
        public int $changes,
        #[OA\Property]
        public int $struck,
        #[OA\Property(items: new OA\Items(type: 'string'))]
        public array $ends,
        #[OA\Property]
        public string $said,
    ) {
    }
}
