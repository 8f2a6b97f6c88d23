<?php

declare(strict_types=1);

namespace App\Http\Lists;

use App\Http\Describe\SaysObjects;
use OpenApi\Attributes as OA;

/** The records that have one value. */
#[OA\Schema]
final readonly class GroupResource implements \JsonSerializable
{
    use SaysObjects;

    /** @param  array<string, string>  $sums */
    public function __construct(
        #[OA\Property(nullable: true, oneOf: [
            new OA\Schema(type: 'string'), new OA\Schema(type: 'integer'), new OA\Schema(type: 'boolean'),
        ])]
        public string|int|bool|null $value,
        #[OA\Property(description: 'The value as a person reads it.')]
        public string $label,
        #[OA\Property(description: 'As conditions name it: people by their handle, records by their number.', nullable: true)]
        public ?string $key,
        #[OA\Property]
        public int $count,
        #[OA\Property(description: 'What number fields add up to, as a person reads it.', type: 'object',
            additionalProperties: new OA\AdditionalProperties(type: 'string'))]
        public array $sums,
    ) {
    }
}
