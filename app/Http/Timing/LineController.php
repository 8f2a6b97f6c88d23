<?php

declare(strict_types=1);

namespace App\Http\Timing;

use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Store\Setup\Company;
use App\Work\Timing\LinesByHand;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use OpenApi\Attributes as OA;

/** Pencilled lines: those of a day, and what people do to single ones. */
final class LineController extends Controller
{
    public function __construct(
        private readonly LinesByHand $lines,
        private readonly Ahead $ahead,
        private readonly Company $company,
    ) {
    }

    #[
        OA\Get(
            path: '/api/lines',
            operationId: 'linesOfDay',
            description: 'What is pencilled in for a day of the company.',
            tags: ['time'],
            responses: [new Ok(AheadResource::class, list: true)],
        ),
    ]
    public function index(DayInput $request): JsonResponse
    {
        $given = $request->validated();
        $from = new \DateTimeImmutable($given['date'], $this->company->zone());

        return new JsonResponse($this->ahead->ofDay($from, ($given['whose'] ?? 'all') === 'mine' ? $this->person($request)->id : null));
    }

    #[
        OA\Post(
            path: '/api/lines/{id}/hold',
            operationId: 'holdLine',
            description: 'Holds a pencilled line back until it is let go on.',
            tags: ['time'],
            responses: [new Ok],
        ),
    ]
    public function hold(int $id, LineReasonInput $request): Response
    {
        $this->lines->hold($id, $this->why($request), $this->person($request)->id);

        return response()->noContent();
    }

    #[
        OA\Post(
            path: '/api/lines/{id}/resume',
            operationId: 'resumeLine',
            description: 'Lets a held line go on at its time.',
            tags: ['time'],
            responses: [new Ok],
        ),
    ]
    public function resume(int $id, LineReasonInput $request): Response
    {
        $this->lines->resume($id, $this->why($request), $this->person($request)->id);

        return response()->noContent();
    }

    #[
        OA\Post(
            path: '/api/lines/{id}/strike',
            operationId: 'strikeLine',
            description: 'Strikes a pencilled line out.',
            tags: ['time'],
            responses: [new Ok],
        ),
    ]
    public function strike(int $id, LineReasonInput $request): Response
    {
        $this->lines->strike($id, $this->why($request), $this->person($request)->id);

        return response()->noContent();
    }

    #[
        OA\Post(
            path: '/api/lines/{id}/now',
            operationId: 'lineNow',
            description: 'Does the line now, whenever it was to fall due.',
            tags: ['time'],
            responses: [new Ok],
        ),
    ]
    public function now(int $id, LineReasonInput $request): Response
    {
        $this->lines->now($id, $this->why($request), $this->person($request)->id);

        return response()->noContent();
    }

    #[
        OA\Get(
            path: '/api/lines/set-aside',
            operationId: 'linesSetAside',
            description: 'Lines that could not be done and wait to be tried again, the latest first.',
            tags: ['time'],
            responses: [new Ok(AheadResource::class, list: true)],
        ),
    ]
    public function setAside(): JsonResponse
    {
        return new JsonResponse($this->ahead->setAside());
    }

    #[
        OA\Post(
            path: '/api/lines/{id}/again',
            operationId: 'lineAgain',
            description: 'Tries a line that was set aside once more.',
            tags: ['time'],
            responses: [new Ok],
        ),
    ]
    public function again(int $id, Request $request): Response
    {
        $this->lines->again($id, $this->person($request)->id);

        return response()->noContent();
    }

    private function why(LineReasonInput $request): string
    {
        return (string) $request->validated()['why'];
    }
}
