<?php

declare(strict_types=1);

namespace App\Http\Describe;

use OpenApi\Attributes as OA;

/** The answer of an operation that went well: one shape, a list of it, or nothing. */
#[\Attribute(\Attribute::TARGET_METHOD)]
final class Ok extends OA\Response
{
    public function __construct(?string $resource = null, bool $list = false, int $status = 200)
    {
        $schema = match (true) {
            $resource === null => null,
            $list => new OA\Schema(type: 'array', items: new OA\Items(type: $resource)),
            default => new OA\Schema(type: $resource),
        };
        parent::__construct(
            response: $resource === null ? 204 : $status,
            description: $resource === null ? 'Done.' : 'The answer.',
            content: $schema === null ? null : new OA\MediaType(mediaType: 'application/json', schema: $schema),
        );
    }
}
