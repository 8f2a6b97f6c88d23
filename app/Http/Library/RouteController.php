<?php

declare(strict_types=1);

namespace App\Http\Library;

use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Models\Library\StoredRoute;
use App\Store\Access\AccessScope;
use App\Store\DomainError;
use App\Store\Library\KeptStore;
use App\Store\Library\RouteMoves;
use App\Store\People\PeopleStore;
use App\Store\Types\SchemaStore;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;
use OpenApi\Attributes as OA;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Part;
use VividLedger\SignOff\KeptRoute;
use VividLedger\SignOff\StepsSlot;
use VividLedger\Words\Words;

/** Routes of sign-offs, kept once and taken by rules under their names. */
final class RouteController extends Controller
{
    public function __construct(
        private readonly KeptStore $kept,
        private readonly SchemaStore $schemas,
        private readonly RouteMoves $moves,
        private readonly PeopleStore $names,
        private readonly AccessScope $inSight,
    ) {
    }

    #[OA\Get(
        path: '/api/routes',
        operationId: 'routes',
        description: 'The routes of sign-offs that are kept under a name.',
        tags: ['sign-offs'],
        responses: [new Ok(RouteResource::class, list: true)],
    )]
    public function index(): JsonResponse
    {
        return new JsonResponse($this->listed(null));
    }

    #[OA\Post(
        path: '/api/routes',
        operationId: 'keepRoute',
        description: 'Keeps a route under a name.',
        tags: ['sign-offs'],
        responses: [new Ok(RouteResource::class, status: 201)],
    )]
    public function store(RouteInput $request): JsonResponse
    {
        $given = $request->validated();
        $id = $this->kept->keepRoute($this->type($given['recordType'] ?? ''), null, null, (string) $given['name'], $given['steps']);

        return new JsonResponse($this->listed($id)[0], 201);
    }

    #[OA\Put(
        path: '/api/routes/{id}',
        operationId: 'changeRoute',
        description: 'Changes a kept route. Sign-offs that run go on as they began.',
        tags: ['sign-offs'],
        responses: [new Ok(RouteResource::class)],
    )]
    public function update(int $id, RouteInput $request): RouteResource
    {
        $given = $request->validated();
        $type = $this->type($this->one($id)->record_type);
        $this->kept->keepRoute($type, $id, self::number($given, 'version'), (string) $given['name'], $given['steps']);

        return $this->listed($id)[0];
    }

    #[OA\Delete(
        path: '/api/routes/{id}',
        operationId: 'dropRoute',
        description: 'Removes a route no rule uses.',
        tags: ['sign-offs'],
        responses: [new Ok],
    )]
    public function destroy(int $id): Response
    {
        $this->kept->dropRoute($id);

        return response()->noContent();
    }

    #[OA\Get(
        path: '/api/routes/{id}/running',
        operationId: 'runningOnRoute',
        description: 'Sign-offs that run on along the route as it was, with those who are asked now and those who would be.',
        tags: ['sign-offs'],
        responses: [new Ok(RouteMoveResource::class, list: true)],
    )]
    public function running(int $id): JsonResponse
    {
        $route = $this->one($id);
        $type = $this->type($route->record_type);
        $running = $this->moves->running($route);
        $then = $this->moves->asked($running);
        $this->names->rememberTitles($type->name, array_values(array_map(
            static fn (array $one): int => $one[0]->record_id,
            $running,
        )));
        $now = array_map(static fn (array $one): array => RouteMoves::whoWaits($one[0]->signOff()), $running);
        $this->names->rememberPeople(array_merge(...array_values($now), ...array_values($then)));
        $moves = [];
        foreach ($running as $id => [$kept]) {
            $moves[] = new RouteMoveResource(
                $kept->id, $type->numberOf($kept->record_id), $this->names->title($type->name, $kept->record_id) ?? '',
                $this->called($now[$id]), $this->called($then[$id]),
            );
        }

        return new JsonResponse($moves);
    }

    #[OA\Post(
        path: '/api/routes/{id}/move',
        operationId: 'moveToRoute',
        description: 'Moves running sign-offs to the route as it is now: what was agreed to stays, the step at hand begins anew.',
        tags: ['sign-offs'],
        responses: [new Ok(RouteResource::class)],
    )]
    public function move(int $id, RouteMoveInput $request): RouteResource
    {
        $ids = array_map(intval(...), $request->validated()['ids']);
        $this->moves->move($this->one($id), array_values($ids), $this->person($request)->id);

        return $this->listed($id)[0];
    }

    private function one(int $id): StoredRoute
    {
        return StoredRoute::query()->find($id) ?? throw DomainError::missing(Words::say('There is no such route.'));
    }

    /**
     * @param  list<int>  $people
     * @return list<string>
     */
    private function called(array $people): array
    {
        return array_map(fn (int $id): string => $this->names->person($id)->name ?? '', $people);
    }

    /** @return list<RouteResource> by name */
    private function listed(?int $only): array
    {
        $users = $this->kept->users(KeptRoute::KEY);
        $running = $this->moves->counts();
        $routes = $this->inSight->ofTypes(StoredRoute::query())->orderBy('name')
            ->when($only !== null, static fn (Builder $routes): Builder => $routes->whereKey($only));

        $contexts = [];

        return array_values($routes->get()->map(function (StoredRoute $route) use ($users, $running, &$contexts): RouteResource {
            // What is looked up for one is known for all of its type.
            $context = $contexts[$route->record_type] ??= $this->kept->context($this->schemas->schema()->types[$route->record_type]);
            $node = new Node($route->steps, '/steps');
            $context->row(Part::Line, $node);
            $problems = count($context->sheet->problems);
            (new StepsSlot)->read($context, $node, new Filled);

            return new RouteResource(
                id: $route->id, name: $route->name, recordType: $route->record_type, version: $route->version, steps: $route->steps,
                said: $context->said(new StepsSlot, $route->steps), problem: $context->sheet->problems[$problems]->message ?? null,
                rules: array_values($users[$route->name] ?? []), running: $running[$route->id] ?? 0,
            );
        })->all());
    }
}
