<?php

declare(strict_types=1);

namespace App\Http\Library;

use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Http\Writing\EditorResources;
use App\Http\Writing\OfferResource;
use App\Store\DomainError;
use App\Store\Library\KeptStore;
use App\Store\Setup\Company;
use App\Store\Types\SchemaStore;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;
use OpenApi\Attributes as OA;
use VividLedger\House\Directory;
use VividLedger\People\PersonExpressions;
use VividLedger\Rule\Ladder\Ladders;
use VividLedger\Rule\Ladder\RungAct;
use VividLedger\Schema\People;
use VividLedger\Shape\Context;
use VividLedger\Words\Words;

/** Ladders, kept once and climbed by rules under their names. */
final class LadderController extends Controller
{
    public function __construct(
        private readonly KeptStore $kept,
        private readonly KeptShelf $shelf,
    ) {
    }

    #[
        OA\Get(
            path: '/api/ladders',
            operationId: 'ladders',
            description: 'The ladders that are kept under a name.',
            tags: ['time'],
            responses: [new Ok(LadderResource::class, list: true)],
        ),
    ]
    public function index(): JsonResponse
    {
        return new JsonResponse($this->shelf->ladders());
    }

    #[
        OA\Get(
            path: '/api/ladders/offers',
            operationId: 'ladderOffers',
            description: 'What a rung can be made of: whom it finds, and what it does.',
            tags: ['time'],
            responses: [new Ok(LadderOffersResource::class)],
        ),
    ]
    public function offers(SchemaStore $schemas, Directory $directory, Company $company): LadderOffersResource
    {
        $type = array_values($schemas->schema()->types)[0] ?? People::type();
        $context = new Context($schemas->schema(), $directory, $type, $company->zone());

        return new LadderOffersResource(
            array_map(EditorResources::offer(...), PersonExpressions::ofAny($context)),
            array_map(static fn (RungAct $act): OfferResource => new OfferResource($act->value, $act->label()), RungAct::cases()),
        );
    }

    #[
        OA\Post(
            path: '/api/ladders',
            operationId: 'keepLadder',
            description: 'Keeps a new ladder under a name.',
            tags: ['time'],
            responses: [new Ok(LadderResource::class, status: 201)],
        ),
    ]
    public function store(NewLadderInput $request): JsonResponse
    {
        $given = $request->validated();

        return new JsonResponse($this->one($this->kept->keepLadder(null, null, (string) $given['name'], $given['rungs'])), 201);
    }

    #[
        OA\Put(
            path: '/api/ladders/{id}',
            operationId: 'changeLadder',
            description: 'Changes a kept ladder.',
            tags: ['time'],
            responses: [new Ok(LadderResource::class)],
        ),
    ]
    public function update(int $id, LadderInput $request): LadderResource
    {
        $given = $request->validated();

        return $this->one($this->kept->keepLadder($id, (int) $given['version'], (string) $given['name'], $given['rungs']));
    }

    #[
        OA\Delete(
            path: '/api/ladders/{id}',
            operationId: 'dropLadder',
            description: 'Removes a ladder no rule uses.',
            tags: ['time'],
            responses: [new Ok],
        ),
    ]
    public function destroy(int $id): Response
    {
        $this->kept->dropLadder($id);

        return response()->noContent();
    }

    private function one(int $id): LadderResource
    {
        return $this->shelf->ladders($id)[0] ?? throw DomainError::missing(Words::say('There is no such ladder.'));
    }
}
