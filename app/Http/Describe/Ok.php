<?php

declare(strict_types=1);

namespace App\Http\Describe;

use OpenApi\Attributes as OA;

/** The answer of an operation that went well: one shape, a list of it, or nothing. */
#[\Attribute(\Attribute::TARGET_METHOD)]
final class Ok extends OA\Response
{
    public function __construct(?string $shape = null, bool $list = false, int $status = 200)
    {
        $schema = match (true) {
            $shape === null => null,
            $list => new OA\Schema(type: 'array', items: new OA\Items(type: $shape)),
            default => new OA\Schema(type: $shape),
        };
        parent::__construct(
            response: $shape === null ? 204 : $status,
            description: $shape === null ? 'Done.' : 'The answer.',
            content: $schema === null ? null : new OA\MediaType(mediaType: 'application/json', schema: $schema),
        );
    }
}
