<?php

declare(strict_types=1);

namespace App\Http\Writing;

use App\Http\Describe\SaysObjects;
use OpenApi\Attributes as OA;

/** A text read as a rule or as a line of one: what stands in the rule file, or what was not understood. */
#[OA\Schema]
final readonly class TextResource implements \JsonSerializable
{
    use SaysObjects;

    /**
     * @param  array<array-key, mixed>|null  $file
     * @param  list<MisreadingResource>  $misread
     * @param  list<MeaningResource>  $meanings
     */
    public function __construct(
        #[OA\Property(type: 'object', nullable: true, additionalProperties: true)]
        public ?array $file,
        #[OA\Property(items: new OA\Items(type: MisreadingResource::class))]
        public array $misread,
        #[OA\Property(description: 'What it can mean, where that is more than one thing.',
            items: new OA\Items(type: MeaningResource::class))]
        public array $meanings = [],
    ) {
    }
}
