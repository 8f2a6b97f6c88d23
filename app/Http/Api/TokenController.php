<?php

declare(strict_types=1);

namespace App\Http\Api;

use App\Http\Api\Describe\Body;
use App\Http\Api\Describe\Ok;
use App\Http\Api\Shape\TokenShape;
use App\Http\Input\TokenInput;
use App\Store\Refused;
use App\Store\RefusedFor;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Laravel\Sanctum\PersonalAccessToken;
use OpenApi\Attributes as OA;
use VividLedger\Record\Value;

/** A person's own API tokens. */
final class TokenController extends Controller
{
    #[
        OA\Get(
            path: '/api/tokens',
            operationId: 'tokens',
            description: 'One’s own API tokens, without their secrets.',
            tags: ['tokens'],
            responses: [new Ok(TokenShape::class, list: true)],
        ),
    ]
    public function index(Request $request): JsonResponse
    {
        return new JsonResponse(
            $this->person($request)->tokens()->orderByDesc('id')->get()->map(
                fn (PersonalAccessToken $token): TokenShape => $this->shape($token),
            )->all(),
        );
    }

    #[
        OA\Post(
            path: '/api/tokens',
            operationId: 'makeToken',
            description: 'Makes an API token; its secret is told this once.',
            tags: ['tokens'],
            requestBody: new Body(['name' => 'string']),
            responses: [new Ok(TokenShape::class, status: 201)],
        ),
    ]
    public function store(TokenInput $request): JsonResponse
    {
        $given = $request->validated();
        $made = $this->person($request)->createToken($given['name']);

        return new JsonResponse($this->shape($made->accessToken, $made->plainTextToken), 201);
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
        if ($this->person($request)->tokens()->whereKey($id)->delete() === 0) {
            throw new Refused('not_found', 'You have no such token.', RefusedFor::Missing);
        }

        return response()->noContent();
    }

    private function shape(PersonalAccessToken $token, ?string $plain = null): TokenShape
    {
        $moment = static fn (?\DateTimeInterface $at): ?string => $at === null ? null
            : Value::instantText(\DateTimeImmutable::createFromInterface(
                $at,
            ));

        return new TokenShape((int) $token->id, $token->name, $plain, (string) $moment($token->created_at), $moment($token->last_used_at));
    }
}
