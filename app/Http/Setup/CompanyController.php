<?php

declare(strict_types=1);

namespace App\Http\Setup;

use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Http\Timing\ProcessResource;
use App\Models\Operations\WorkerProcess;
use App\Models\People\Person;
use App\Store\DomainError;
use App\Store\RefusedFor;
use App\Store\Setup\Company;
use App\Work\Operations\Heartbeat;
use OpenApi\Attributes as OA;
use VividLedger\Record\Value;
use VividLedger\Words\Words;

/** The company's settings, its people, and the processes at work for it. */
final class CompanyController extends Controller
{
    public function __construct(
        private readonly Company $company,
    ) {
    }

    #[
        OA\Get(
            path: '/api/company',
            operationId: 'company',
            description: 'The company, who stands in when a rule finds nobody, and the programs at work.',
            tags: ['company'],
            responses: [new Ok(CompanyResource::class)],
        ),
    ]
    public function show(): CompanyResource
    {
        $processes = WorkerProcess::query()->orderBy('kind')->latest('started_at')->get()->map(
            static fn (WorkerProcess $process): ProcessResource => new ProcessResource(
                name: $process->process, kind: $process->kind, startedAt: Value::instantText($process->started_at),
                beatAt: Value::instantText($process->beat_at), done: $process->done, alive: Heartbeat::isAlive($process->beat_at),
            ),
        );

        return new CompanyResource(
            $this->company->name(), $this->company->zone()->getName(), $this->company->fallbackPersonId(), array_values($processes->all()),
        );
    }

    #[
        OA\Patch(
            path: '/api/company',
            operationId: 'changeCompany',
            description: 'Names who stands in when a rule finds nobody.',
            tags: ['company'],
            responses: [new Ok(CompanyResource::class)],
        ),
    ]
    public function update(CompanyInput $request): CompanyResource
    {
        $given = $request->validated();
        $id = $given['fallbackPersonId'] === null ? null : $this->personGiven($given['fallbackPersonId'], '/fallbackPersonId');
        if ($id !== null && ! Person::query()->whereKey($id)->where('active', true)->exists()) {
            $message = Words::say('There is no such person at work here.');
            throw new DomainError(
                'unknown_value',
                $message,
                RefusedFor::Invalid,
                [['at' => '/fallbackPersonId', 'code' => 'unknown_value', 'message' => $message]],
            );
        }
        $this->company->setFallbackPerson($id);

        return $this->show();
    }
}
