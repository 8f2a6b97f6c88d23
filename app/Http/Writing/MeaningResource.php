<?php

declare(strict_types=1);

namespace App\Http\Writing;

use App\Http\Describe\SaysObjects;
use OpenApi\Attributes as OA;

/** One of several things that a text can mean. */
#[OA\Schema]
final readonly class MeaningResource implements \JsonSerializable
{
    use SaysObjects;

    /** @param  array<array-key, mixed>  $file */
    public function __construct(
        #[OA\Property(description: 'As it is printed.')]
        public string $text,
        #[OA\Property(type: 'object', additionalProperties: true)]
        public array $file,
    ) {
    }
}
