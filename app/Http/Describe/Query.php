<?php

declare(strict_types=1);

namespace App\Http\Describe;

use OpenApi\Attributes as OA;

/** A parameter behind the question mark. */
#[\Attribute(\Attribute::TARGET_METHOD | \Attribute::IS_REPEATABLE)]
final class Query extends OA\QueryParameter
{
    /** @param  ?list<string>  $enum */
    public function __construct(string $name, string $type = 'string', string $description = '', ?array $enum = null,
        bool $isNeeded = false)
    {
        parent::__construct(
            name: $name,
            description: $description === '' ? null : $description,
            required: $isNeeded,
            schema: new OA\Schema(type: $type, enum: $enum),
        );
    }
}
