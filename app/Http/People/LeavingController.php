<?php

declare(strict_types=1);

namespace App\Http\People;

use App\Evidence\People\Leaving;
use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Models\People\Person;
use App\Store\DomainError;
use App\Store\Types\SchemaStore;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use OpenApi\Attributes as OA;
use VividLedger\Words\Words;

/** Somebody leaves the company, and may come back. */
final class LeavingController extends Controller
{
    public function __construct(private readonly Leaving $leaving)
    {
    }

    #[OA\Get(path: '/api/people/{id}/leaving', operationId: 'previewLeaving', description: 'What is somebody’s, and would be another’s if '
        .'they left.', tags: ['company'], responses: [new Ok(LeavingResource::class)])]
    public function show(int $id, SchemaStore $schemas): LeavingResource
    {
        $sum = $this->leaving->preview(self::somebody($id));
        $counts = array_map(static fn (string $type, int $count): LeavingCount => new LeavingCount(
            $count === 1 ? $schemas->schema()->types[$type]->label : $schemas->schema()->types[$type]->plural,
            $count,
        ), array_keys($sum['records']), $sum['records']);

        return new LeavingResource(
            records: $counts, tasks: $sum['tasks'], signOffs: $sum['signOffs'], slips: $sum['slips'], people: $sum['people'],
            rules: $sum['rules'],
        );
    }

    #[OA\Post(path: '/api/people/{id}/leave', operationId: 'leave', description: 'Somebody leaves, and another takes over their records, '
        .'tasks, sign-offs, slips and people: all of it, or nothing.', tags: ['company'],
        responses: [new Ok])]
    public function leave(int $id, LeaveInput $request): Response
    {
        $this->leaving->leave(
            self::somebody($id),
            $this->personGiven($request->validated()['to'], '/to'),
            $this->person($request)->id,
        );

        return response()->noContent();
    }

    #[OA\Post(path: '/api/people/{id}/return', operationId: 'comeBackToCompany', description: 'Somebody who had left is back. What nobody '
        .'has touched since is theirs again.', tags: ['company'], responses: [new Ok])]
    public function back(int $id, Request $request): Response
    {
        $this->leaving->comeBack(self::somebody($id), $this->person($request)->id);

        return response()->noContent();
    }

    private static function somebody(int $id): Person
    {
        return Person::query()->find($id) ?? throw DomainError::missing(Words::say('There is no person {id}.', id: $id));
    }
}
