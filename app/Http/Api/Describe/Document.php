<?php

declare(strict_types=1);

namespace App\Http\Api\Describe;

use OpenApi\Attributes as OA;
use OpenApi\Generator;
use OpenApi\Util;

/** The description of the API (OpenAPI 3), made from the attributes of the controllers and shapes. */
#[
    OA\Info(
        version: '1',
        title: 'Vivid Ledger',
        description: 'Sign in with a session, or send a personal API token as a bearer token. Refusals are problem documents (RFC 9457) '
            .'with a stable code, and change nothing.',
    ),
]
#[OA\SecurityScheme(securityScheme: 'token', type: 'http', scheme: 'bearer')]
#[
    OA\Response(
        response: 'Problem',
        description: 'A refusal.',
        content: new OA\MediaType(mediaType: 'application/problem+json', schema: new OA\Schema(type: ProblemDocument::class)),
    ),
]
final class Document
{
    public static function json(): string
    {
        $generator = new Generator;
        $generator->addProcessor(new FillIn);
        $document = $generator->setVersion('3.0.0')->generate(Util::finder([dirname(__DIR__)]));
        $described = json_decode((string) $document?->toJson(), true, 512, JSON_THROW_ON_ERROR);

        return json_encode(
            self::typed($described),
            JSON_PRETTY_PRINT | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_THROW_ON_ERROR,
        )."\n";
    }

    /** "Any JSON" has no type: a word for it would be one that no reader of the document knows. */
    private static function typed(mixed $described): mixed
    {
        if (! is_array($described)) {
            return $described;
        }
        if (($described['type'] ?? null) === 'mixed') {
            unset($described['type']);
        }

        return array_map(self::typed(...), $described);
    }
}
