<?php

declare(strict_types=1);

namespace App\Http\Records;

use OpenApi\Attributes as OA;

/** A stage that a record could go to, and what would come of it. */
#[OA\Schema]
final readonly class StageAheadResource
{
    /** @param  list<string>  $fires */
    public function __construct(
        #[OA\Property]
        public string $value,
        #[OA\Property]
        public string $label,
        #[OA\Property(description: 'Whether the record is closed there.')]
        public bool $closes,
        #[OA\Property(description: 'What a rule asks for first, in its words; empty when nothing is asked.')]
        public string $asks,
        #[OA\Property(description: 'The rules that would fire.', items: new OA\Items(type: 'string'))]
        public array $fires,
    ) {
    }
}
