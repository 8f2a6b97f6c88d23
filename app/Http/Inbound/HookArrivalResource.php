<?php

declare(strict_types=1);

namespace App\Http\Inbound;

use OpenApi\Attributes as OA;

/** What arrived at a hook, and what came of it. */
#[OA\Schema]
final readonly class HookArrivalResource
{
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property(description: 'By which the other system names it.')]
        public string $key,
        #[OA\Property]
        public string $at,
        #[OA\Property(description: 'created, changed, unchanged or refused.')]
        public string $outcome,
        #[OA\Property]
        public string $recordType,
        #[OA\Property]
        public ?int $record,
        #[OA\Property]
        public string $recordNumber,
        #[OA\Property]
        public string $recordTitle,
        #[OA\Property(description: 'How often it arrived; it is taken once.')]
        public int $times,
        #[OA\Property]
        public string $trouble,
        #[OA\Property]
        public string $text,
        #[OA\Property(description: 'Whether the text is all of it; where it is not, it cannot be mended here.')]
        public bool $isWhole,
    ) {
    }
}
