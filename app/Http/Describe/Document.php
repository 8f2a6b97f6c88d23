<?php

declare(strict_types=1);

namespace App\Http\Describe;

use OpenApi\Attributes as OA;
use OpenApi\Generator;
use OpenApi\Util;

/** The description of the API (OpenAPI 3.1), made from the attributes of the controllers and resources. */
#[
    OA\Info(
        version: '1',
        title: 'Vivid Ledger',
        description: 'Sign in with a session, or send a personal API token as a bearer token. Refusals are problem documents (RFC 9457) '
            .'with a stable code, and change nothing.',
    ),
]
#[OA\SecurityScheme(securityScheme: 'token', type: 'http', scheme: 'bearer', description: 'A personal API token.')]
#[OA\SecurityScheme(securityScheme: 'session', type: 'apiKey', name: 'vivid_ledger_session', in: 'cookie',
    description: 'Whoever has signed in; what changes something sends the token of its page as X-XSRF-TOKEN besides.')]
#[
    OA\Response(
        response: 'Problem',
        description: 'A refusal.',
        content: new OA\MediaType(mediaType: 'application/problem+json', schema: new OA\Schema(type: ProblemDocument::class)),
    ),
]
final class Document
{
    /** Open to whoever is not signed in; each has a secret or a limit of its own. */
    public const OPEN = [
        'POST /api/session', '/api/decide/{token}', '/api/door', '/api/welcome/{token}', '/api/welcome/{token}/company',
        '/api/password/forgotten',
    ];

    public static function json(): string
    {
        $generator = new Generator;
        $generator->addProcessor(new FillIn);
        $document = $generator->setVersion('3.1.0')->generate(Util::finder([dirname(__DIR__)]));
        $described = json_decode((string) $document?->toJson(), true, 512, JSON_THROW_ON_ERROR);
        $described = Requests::into($described);
        // By name, so that where a class lies makes no difference.
        ksort($described['paths']);
        ksort($described['components']['schemas']);

        return json_encode(
            self::typed(self::secured($described)),
            JSON_PRETTY_PRINT | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_THROW_ON_ERROR,
        )."\n";
    }

    /**
     * @param  array<string, mixed>  $described
     * @return array<string, mixed> with what lets somebody in: a token or a session, but for what is open
     */
    private static function secured(array $described): array
    {
        foreach ((array) $described['paths'] as $path => $operations) {
            foreach (array_keys((array) $operations) as $method) {
                if (in_array($path, self::OPEN, true) || in_array(strtoupper((string) $method)." {$path}", self::OPEN, true)) {
                    $described['paths'][$path][$method]['security'] = [];
                }
            }
        }

        return $described + ['security' => [['token' => []], ['session' => []]]];
    }

    /** "Any JSON" has no type: a word for it would be one that no reader of the document knows, and null is among it. */
    private static function typed(mixed $described): mixed
    {
        if (! is_array($described)) {
            return $described;
        }
        $types = $described['type'] ?? '';
        if ($types === 'mixed' || (is_array($types) && in_array('mixed', $types, true))) {
            unset($described['type']);
        }
        if (($described['nullable'] ?? false) === true) {
            unset($described['nullable']);
            if (isset($described['oneOf'])) {
                $described['oneOf'][] = ['type' => 'null'];
            }
        }

        if (is_array($types) && in_array('null', $types, true) && isset($described['enum'])) {
            $described['enum'][] = null;
        }

        return array_map(self::typed(...), $described);
    }
}
