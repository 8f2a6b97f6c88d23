<?php

declare(strict_types=1);

namespace App\Http\Library;

use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Store\DomainError;
use App\Store\Library\KeptStore;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;
use OpenApi\Attributes as OA;
use VividLedger\Words\Words;

/** Letters and named conditions, kept once and used by rules under their names. */
final class KeptController extends Controller
{
    public function __construct(
        private readonly KeptStore $kept,
        private readonly KeptShelf $shelf,
    ) {
    }

    #[
        OA\Get(
            path: '/api/letters',
            operationId: 'letters',
            description: 'The letters that are kept under a name.',
            tags: ['kept'],
            responses: [new Ok(LetterResource::class, list: true)],
        ),
    ]
    public function letters(): JsonResponse
    {
        return new JsonResponse($this->shelf->letters());
    }

    #[
        OA\Post(
            path: '/api/letters',
            operationId: 'keepLetter',
            description: 'Keeps a new letter under a name.',
            tags: ['kept'],
            responses: [new Ok(LetterResource::class, status: 201)],
        ),
    ]
    public function storeLetter(NewLetterInput $request): JsonResponse
    {
        $given = $request->validated();
        $type = $this->type($given['recordType']);
        [$name, $subject, $body] = [(string) $given['name'], (string) $given['subject'], (string) $given['body']];
        $id = $this->kept->keepLetter($type, null, null, $name, $subject, $body, $this->person($request)->id);

        return new JsonResponse($this->letter($id), 201);
    }

    #[
        OA\Put(
            path: '/api/letters/{id}',
            operationId: 'changeLetter',
            description: 'Keeps the next version; what was sent stays as it was.',
            tags: ['kept'],
            responses: [new Ok(LetterResource::class)],
        ),
    ]
    public function updateLetter(int $id, LetterInput $request): LetterResource
    {
        $given = $request->validated();
        $type = $this->type($this->letter($id)->recordType);
        [$name, $subject, $body] = [(string) $given['name'], (string) $given['subject'], (string) $given['body']];
        $this->kept->keepLetter($type, $id, (int) $given['version'], $name, $subject, $body, $this->person($request)->id);

        return $this->letter($id);
    }

    #[
        OA\Delete(
            path: '/api/letters/{id}',
            operationId: 'dropLetter',
            description: 'Removes a letter no rule uses.',
            tags: ['kept'],
            responses: [new Ok],
        ),
    ]
    public function dropLetter(int $id): Response
    {
        $this->kept->dropLetter($id);

        return response()->noContent();
    }

    #[
        OA\Get(
            path: '/api/letters/{id}/versions',
            operationId: 'letterVersions',
            description: 'A kept letter as it read over time, the latest first.',
            tags: ['kept'],
            responses: [new Ok(LetterVersionResource::class, list: true)],
        ),
    ]
    public function versions(int $id): JsonResponse
    {
        return new JsonResponse($this->shelf->versions($id));
    }

    #[
        OA\Get(
            path: '/api/named-conditions',
            operationId: 'namedConditions',
            description: 'The conditions that are kept under a name.',
            tags: ['kept'],
            responses: [new Ok(NamedResource::class, list: true)],
        ),
    ]
    public function named(): JsonResponse
    {
        return new JsonResponse($this->shelf->named());
    }

    #[
        OA\Post(
            path: '/api/named-conditions',
            operationId: 'keepCondition',
            description: 'Keeps a new condition under a name.',
            tags: ['kept'],
            responses: [new Ok(NamedResource::class, status: 201)],
        ),
    ]
    public function storeNamed(NewConditionInput $request): JsonResponse
    {
        $given = $request->validated();
        $id = $this->kept->keepCondition($this->type($given['recordType']), null, null, (string) $given['name'], $given['file']);

        return new JsonResponse($this->shelf->named($id)[0], 201);
    }

    #[
        OA\Put(
            path: '/api/named-conditions/{id}',
            operationId: 'changeCondition',
            description: 'Changes a kept condition; rules that use it go by the new one at once.',
            tags: ['kept'],
            responses: [new Ok(NamedResource::class)],
        ),
    ]
    public function updateNamed(int $id, ConditionInput $request): NamedResource
    {
        $given = $request->validated();
        $row = $this->shelf->named($id)[0] ?? throw DomainError::missing(Words::say('There is no such condition.'));
        $this->kept->keepCondition($this->type($row->recordType), $id, (int) $given['version'], (string) $given['name'], $given['file']);

        return $this->shelf->named($id)[0];
    }

    #[
        OA\Delete(
            path: '/api/named-conditions/{id}',
            operationId: 'dropCondition',
            description: 'Removes a condition no rule uses.',
            tags: ['kept'],
            responses: [new Ok],
        ),
    ]
    public function dropNamed(int $id): Response
    {
        $this->kept->dropCondition($id);

        return response()->noContent();
    }

    private function letter(int $id): LetterResource
    {
        return $this->shelf->letters($id)[0] ?? throw DomainError::missing(Words::say('There is no such letter.'));
    }
}
