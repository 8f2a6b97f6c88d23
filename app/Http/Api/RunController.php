<?php

declare(strict_types=1);

namespace App\Http\Api;

use App\Http\Api\Describe\Body;
use App\Http\Api\Describe\Ok;
use App\Http\Api\Shape\RunResultShape;
use App\Http\Api\Shape\RunShape;
use App\Http\Input\HandRunInput;
use App\Models\HandRun;
use App\Models\HandRunRecord;
use App\Store\PeopleStore;
use App\Store\Refused;
use App\Store\RefusedFor;
use App\Store\RunStore;
use App\Work\Jobs\GoThroughRuns;
use Illuminate\Http\JsonResponse;
use OpenApi\Attributes as OA;
use VividLedger\Record\Value;

/** Rules run by hand, on one record or on a selection. */
final class RunController extends Controller
{
    private const RESULTS = 500;

    public function __construct(
        private readonly RunStore $runs,
        private readonly PeopleStore $names,
    ) {
    }

    #[
        OA\Post(
            path: '/api/rules/{id}/run',
            operationId: 'runRule',
            description: 'Runs a rule by hand. On one record the answer is there at once; a selection is worked through in the background.',
            tags: ['runs'],
            requestBody: new Body(['recordType' => 'string', 'records' => 'integers']),
            responses: [new Ok(RunShape::class, status: 201)],
        ),
    ]
    public function store(int $id, HandRunInput $request): JsonResponse
    {
        $given = $request->validated();
        $run = $this->runs->start(
            $id,
            $this->type($given['recordType']),
            array_values(array_map(intval(...), $given['records'])),
            $this->person($request)->id,
        );
        if (count($given['records']) === 1) {
            $this->runs->finish($run);
        } else {
            GoThroughRuns::dispatch();
        }

        return new JsonResponse($this->show($run), 201);
    }

    #[
        OA\Get(
            path: '/api/runs/{id}',
            operationId: 'run',
            description: 'A run by hand: how far it is, and what became of each record.',
            tags: ['runs'],
            responses: [new Ok(RunShape::class)],
        ),
    ]
    public function show(int $id): RunShape
    {
        $run = HandRun::query()->with(['rule', 'by'])->find($id) ?? throw new Refused(
            'not_found',
            "There is no run {$id}.",
            RefusedFor::Missing,
        );
        $type = $this->type($run->record_type);
        $rows = $run->records()->orderBy('record_id')->limit(self::RESULTS)->get();
        $this->names->rememberTitles($type->name, array_values($rows->pluck('record_id')->all()));
        $results = $rows->map(fn (HandRunRecord $row): RunResultShape => new RunResultShape(
            $row->record_id, $type->numberOf($row->record_id), $this->names->title($type->name, $row->record_id) ?? '', $row->result,
            $row->said, $row->entry_id,
        ));

        return new RunShape(
            $run->id, $run->rule_id, $run->rule->name, $run->record_type, $run->by->name, Value::instantText($run->at), $run->status->value,
            $run->total, $run->done, $run->fired, array_values($results->all()),
        );
    }
}
