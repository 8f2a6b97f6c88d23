<?php

declare(strict_types=1);

namespace App\Http\Rules;

use App\Http\Describe\SaysObjects;
use App\Http\Writing\ReadingResource;
use OpenApi\Attributes as OA;

/** One published page of a rule. */
#[OA\Schema]
final readonly class PageResource implements \JsonSerializable
{
    use SaysObjects;

    /**
     * @param  array<array-key, mixed>  $file
     */
    public function __construct(
        #[OA\Property]
        public int $number,
        #[OA\Property(format: 'date-time')]
        public string $publishedAt,
        #[OA\Property]
        public string $publishedBy,
        #[OA\Property(description: 'Why it was published, as whoever did it wrote.')]
        public string $why,
        #[OA\Property(type: 'object', additionalProperties: true)]
        public array $file,
        #[OA\Property]
        public ReadingResource $reading,
    ) {
    }
}
