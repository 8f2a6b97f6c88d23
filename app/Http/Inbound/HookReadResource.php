<?php

declare(strict_types=1);

namespace App\Http\Inbound;

use OpenApi\Attributes as OA;

/** What would come of something that arrived at a hook; nothing is done. */
#[OA\Schema]
final readonly class HookReadResource
{
    /** @param  array<string, string>  $values */
    public function __construct(
        #[OA\Property(description: 'The record it would change; null when it would make one.')]
        public ?int $record,
        #[OA\Property]
        public string $recordNumber,
        #[OA\Property(
            description: 'What would be written, by the label of the field.', type: 'object',
            additionalProperties: new OA\AdditionalProperties(type: 'string'),
        )]
        public array $values,
    ) {
    }
}
