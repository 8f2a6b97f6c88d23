<?php

declare(strict_types=1);

namespace App\Http\Outbound;

use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Models\Outbound\CallStatus;
use App\Models\Outbound\Endpoint;
use App\Models\Outbound\StoredCall;
use App\Store\Library\KeptStore;
use App\Store\Outbound\EndpointStore;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;
use OpenApi\Attributes as OA;
use VividLedger\Record\Value;
use VividLedger\Rule\Call\EndpointSlot;

/** Endpoints of other systems, kept in Setup and called by rules. */
final class EndpointController extends Controller
{
    public function __construct(private readonly EndpointStore $endpoints, private readonly KeptStore $kept)
    {
    }

    #[OA\Get(path: '/api/endpoints', operationId: 'endpoints', description: 'The endpoints of other systems.', tags: ['calls'],
        responses: [new Ok(EndpointResource::class, list: true)])]
    public function index(): JsonResponse
    {
        $users = $this->kept->users(EndpointSlot::KEY);
        $counts = self::counts();

        return new JsonResponse(Endpoint::query()->orderBy('name')->get()->map(
            static fn (Endpoint $endpoint): EndpointResource => self::resource($endpoint, $users[$endpoint->name] ?? [], $counts),
        )->all());
    }

    #[OA\Post(path: '/api/endpoints', operationId: 'keepEndpoint', description: 'Keeps an endpoint under a name.', tags: ['calls'],
        responses: [new Ok(EndpointResource::class, status: 201)])]
    public function store(EndpointInput $request): JsonResponse
    {
        return new JsonResponse(self::resource($this->endpoints->keep(null, null, $request->given()), [], []), 201);
    }

    #[OA\Put(path: '/api/endpoints/{id}', operationId: 'changeEndpoint', description: 'Changes an endpoint. Secrets that are left out '
        .'stay as they are.', tags: ['calls'],
        responses: [new Ok(EndpointResource::class)])]
    public function update(int $id, EndpointInput $request): EndpointResource
    {
        $endpoint = $this->endpoints->keep($id, self::number($request->validated(), 'version'), $request->given());

        return self::resource($endpoint, $this->kept->usersOf(EndpointSlot::KEY, $endpoint->name), self::counts());
    }

    #[OA\Delete(path: '/api/endpoints/{id}', operationId: 'dropEndpoint', description: 'Removes an endpoint no rule calls.',
        tags: ['calls'], responses: [new Ok])]
    public function destroy(int $id): Response
    {
        $this->endpoints->drop($id);

        return response()->noContent();
    }

    /** @return array<string, array<string, int>> how many calls of each endpoint stand how, but those that went well */
    private static function counts(): array
    {
        $counts = [];
        $rows = StoredCall::rows()->whereIn('status', [CallStatus::Waiting->value, CallStatus::Failed->value])
            ->groupBy('endpoint', 'status')->selectRaw('endpoint, status, COUNT(*) AS count')->get();
        foreach ($rows as $row) {
            $counts[$row->endpoint][$row->status] = (int) $row->count;
        }

        return $counts;
    }

    /**
     * @param  array<int, string>  $users
     * @param  array<string, array<string, int>>  $counts
     */
    private static function resource(Endpoint $endpoint, array $users, array $counts): EndpointResource
    {
        $count = static fn (CallStatus $status): int => $counts[$endpoint->name][$status->value] ?? 0;
        $rests = $endpoint->rests_until !== null && $endpoint->rests_until->getTimestamp() > time() ? $endpoint->rests_until : null;

        return new EndpointResource(
            id: $endpoint->id, name: $endpoint->name, version: $endpoint->version, url: $endpoint->url, method: $endpoint->method,
            headers: array_map(
                static fn (string $name, string $value): HeaderResource => new HeaderResource($name, $value),
                array_keys($endpoint->headers),
                $endpoint->headers,
            ),
            secretHeaders: array_keys($endpoint->secret_headers ?? []), isSigned: $endpoint->signing_secret !== null,
            timeout: $endpoint->timeout, tries: $endpoint->most_tries, atOnce: $endpoint->at_once, perMinute: $endpoint->per_minute,
            mayBeInside: $endpoint->may_be_inside, restsUntil: $rests === null ? null : Value::instantText($rests),
            waiting: $count(CallStatus::Waiting), failed: $count(CallStatus::Failed), rules: array_values($users),
        );
    }
}
