<?php

declare(strict_types=1);

namespace App\Http\Timing;

use App\Http\Describe\SaysObjects;
use OpenApi\Attributes as OA;

/** What is pencilled in for a day, by kind. */
#[OA\Schema]
final readonly class DayResource implements \JsonSerializable
{
    use SaysObjects;

    /**
     * @param  array<array-key, mixed>  $kinds
     */
    public function __construct(
        #[OA\Property]
        public string $date,
        #[OA\Property(type: 'object', additionalProperties: true)]
        public array $kinds,
        #[OA\Property]
        public bool $free,
        #[OA\Property]
        public string $note,
    ) {
    }
}
