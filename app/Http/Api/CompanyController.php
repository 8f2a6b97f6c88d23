<?php

declare(strict_types=1);

namespace App\Http\Api;

use App\Http\Api\Describe\Body;
use App\Http\Api\Describe\Ok;
use App\Http\Api\Shape\CompanyShape;
use App\Http\Api\Shape\PersonShape;
use App\Http\Api\Shape\ProcessShape;
use App\Models\Person;
use App\Store\Columns;
use App\Store\Company;
use App\Store\Refused;
use App\Work\Heartbeat;
use Illuminate\Database\Connection;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use OpenApi\Attributes as OA;

/** The company's settings, its people, and the processes at work for it. */
final class CompanyController extends Controller
{
    public function __construct(
        private readonly Connection $db,
        private readonly Company $company,
    ) {
    }

    #[
        OA\Get(
            path: '/api/company',
            operationId: 'company',
            description: 'The company, who stands in when a rule finds nobody, and the programs at work.',
            tags: ['company'],
            responses: [new Ok(CompanyShape::class)],
        ),
    ]
    public function show(): CompanyShape
    {
        $processes = array_map(
            static fn (object $row): ProcessShape => new ProcessShape($row->process, $row->kind, (string) Columns::iso($row->started_at), (string) Columns::iso($row->beat_at), (int) $row->done, Heartbeat::isAlive($row->beat_at)),
            $this->db->select('SELECT * FROM heartbeats ORDER BY kind, started_at DESC'),
        );

        return new CompanyShape($this->company->name(), $this->company->zone()->getName(), $this->company->fallbackPersonId(), $processes);
    }

    #[
        OA\Patch(
            path: '/api/company',
            operationId: 'changeCompany',
            description: 'Names who stands in when a rule finds nobody.',
            tags: ['company'],
            requestBody: new Body(['fallbackPersonId?' => 'person']),
            responses: [new Ok(CompanyShape::class)],
        ),
    ]
    public function update(Request $request): CompanyShape
    {
        $given = $request->validate(['fallbackPersonId' => 'present|nullable']);
        $id = $given['fallbackPersonId'] === null ? null : $this->personGiven($given['fallbackPersonId'], '/fallbackPersonId');
        if ($id !== null && ! Person::query()->whereKey($id)->where('active', true)->exists()) {
            throw new Refused('unknown_value', 'There is no such person at work here.', 422, [['at' => '/fallbackPersonId', 'code' => 'unknown_value', 'message' => 'There is no such person at work here.']]);
        }
        $this->company->setFallbackPerson($id);

        return $this->show();
    }

    #[
        OA\Get(
            path: '/api/people',
            operationId: 'people',
            description: 'Everybody, those who have left included.',
            tags: ['company'],
            responses: [new Ok(PersonShape::class, list: true)],
        ),
    ]
    public function people(): JsonResponse
    {
        $people = Person::query()->orderBy('name')->get()->map(static fn (Person $person): PersonShape => new PersonShape(
            $person->id, $person->handle, $person->name, $person->email, $person->role->value, $person->team, $person->manager_id, $person->time_zone, $person->active,
        ));

        return new JsonResponse($people->all());
    }
}
