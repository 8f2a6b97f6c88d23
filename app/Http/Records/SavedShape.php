<?php

declare(strict_types=1);

namespace App\Http\Records;

use App\Http\Rules\FiredShape;
use OpenApi\Attributes as OA;

/** What a save came to: the record as it is now, rules included. */
#[OA\Schema]
final readonly class SavedShape
{
    /**
     * @param  list<FiredShape>  $fired
     */
    public function __construct(
        #[OA\Property]
        public RecordShape $record,
        #[OA\Property]
        public ?int $entry,
        #[OA\Property(items: new OA\Items(type: FiredShape::class))]
        public array $fired,
    ) {
    }
}
