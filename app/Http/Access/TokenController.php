<?php

declare(strict_types=1);

namespace App\Http\Access;

use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Models\Access\TokenScope;
use App\Store\Access\AccessEntries;
use App\Store\DomainError;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Laravel\Sanctum\PersonalAccessToken;
use OpenApi\Attributes as OA;
use VividLedger\Record\Value;
use VividLedger\Words\Words;

/** A person's own API tokens. */
final class TokenController extends Controller
{
    public function __construct(private readonly AccessEntries $entries)
    {
    }

    #[
        OA\Get(
            path: '/api/tokens',
            operationId: 'tokens',
            description: 'One’s own API tokens, without their secrets.',
            tags: ['tokens'],
            responses: [new Ok(TokenResource::class, list: true)],
        ),
    ]
    public function index(Request $request): JsonResponse
    {
        return new JsonResponse(
            $this->person($request)->tokens()->orderByDesc('id')->get()->map(
                fn (PersonalAccessToken $token): TokenResource => $this->resource($token),
            )->all(),
        );
    }

    #[
        OA\Post(
            path: '/api/tokens',
            operationId: 'makeToken',
            description: 'Makes an API token, for which one’s password is asked for again; its secret is told this once.',
            tags: ['tokens'],
            responses: [new Ok(TokenResource::class, status: 201)],
        ),
    ]
    public function store(TokenInput $request): JsonResponse
    {
        $given = $request->validated();
        $person = $this->person($request);
        PasswordConfirmation::mustBe($request, $person, $given['password']);
        $until = isset($given['until']) ? new \DateTimeImmutable($given['until']) : null;
        if ($until !== null && $until <= new \DateTimeImmutable) {
            throw DomainError::at('/until', Words::say('That is past already.'));
        }
        $made = $person->createToken($given['name'], [$given['scope'] ?? TokenScope::Everything->value], $until);
        $this->entries->write('token_made', $person->id, ['person' => $person->id, 'title' => $given['name']]);

        return new JsonResponse($this->resource($made->accessToken, $made->plainTextToken), 201);
    }

    #[
        OA\Delete(
            path: '/api/tokens/{id}',
            operationId: 'revokeToken',
            description: 'Makes an API token no longer good.',
            tags: ['tokens'],
            responses: [new Ok],
        ),
    ]
    public function destroy(int $id, Request $request): Response
    {
        $person = $this->person($request);
        $token = $person->tokens()->find($id) ?? throw DomainError::missing(Words::say('You have no such token.'));
        $token->delete();
        $this->entries->write('token_ended', $person->id, ['person' => $person->id, 'title' => $token->name]);

        return response()->noContent();
    }

    private function resource(PersonalAccessToken $token, ?string $plain = null): TokenResource
    {
        $moment = static fn (?\DateTimeInterface $at): ?string => $at === null ? null
            : Value::instantText(\DateTimeImmutable::createFromInterface(
                $at,
            ));

        return new TokenResource(
            id: (int) $token->id, name: $token->name, token: $plain, createdAt: (string) $moment($token->created_at),
            lastUsedAt: $moment($token->last_used_at), until: $moment($token->expires_at),
            scope: (string) (($token->abilities ?? [])[0] ?? TokenScope::Reading->value),
        );
    }
}
