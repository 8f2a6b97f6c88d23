<?php

declare(strict_types=1);

namespace App\Http\Timing;

use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Models\Records\StoredRecord;
use App\Models\Timing\HandRun;
use App\Models\Timing\HandRunRecord;
use App\Store\Access\AccessScope;
use App\Store\Access\RecordAuthorizer;
use App\Store\DomainError;
use App\Store\People\PeopleStore;
use App\Store\Timing\RunStore;
use App\Work\Timing\GoThroughRuns;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use OpenApi\Attributes as OA;
use VividLedger\Record\Value;
use VividLedger\Rights\Act;
use VividLedger\Rights\Duty;
use VividLedger\Words\Words;

/** Rules run by hand, on one record or on a selection. */
final class RunController extends Controller
{
    private const RESULTS = 500;

    public function __construct(
        private readonly RunStore $runs,
        private readonly PeopleStore $names,
        private readonly RecordAuthorizer $gate,
        private readonly AccessScope $inSight,
    ) {
    }

    #[
        OA\Post(
            path: '/api/rules/{id}/run',
            operationId: 'runRule',
            description: 'Runs a rule by hand. On one record the answer is there at once; a selection is worked through in the background.',
            tags: ['runs'],
            responses: [new Ok(RunResource::class, status: 201)],
        ),
    ]
    public function store(int $id, HandRunInput $request): JsonResponse
    {
        $given = $request->validated();
        $type = $this->type($given['recordType']);
        $records = array_values(array_map(intval(...), $given['records']));
        $this->gate->mustMayAll(Act::Run, $type, $records);
        $run = $this->runs->start(
            $id,
            $type,
            $records,
            $this->person($request)->id,
        );
        if (count($given['records']) === 1) {
            $this->runs->finish($run);
        } else {
            GoThroughRuns::dispatch();
        }

        return new JsonResponse($this->show($run, $request), 201);
    }

    #[
        OA\Get(
            path: '/api/runs/{id}',
            operationId: 'run',
            description: 'A run by hand: how far it is, and what became of each record.',
            tags: ['runs'],
            responses: [new Ok(RunResource::class)],
        ),
    ]
    public function show(int $id, Request $request): RunResource
    {
        $me = $this->person($request);
        $run = HandRun::query()->with(['rule', 'by'])
            ->when(! $me->may(Duty::SeeLedger), static fn (Builder $runs): Builder => $runs->where('by_id', $me->id))->find($id)
                ?? throw DomainError::missing(Words::say('There is no run {id}.', id: $id));
        $type = $this->type($run->record_type);
        $seen = $this->inSight->where($type, StoredRecord::tableOf($type->name));
        $rows = $run->records()->orderBy('record_id')->limit(self::RESULTS)->when($seen !== null,
            static fn (Builder $rows): Builder => $rows
                ->whereIn('record_id', StoredRecord::rowsOf($type)->whereRaw((string) $seen)->select('id')))->get();
        $this->names->rememberTitles($type->name, array_values($rows->pluck('record_id')->all()));
        $results = $rows->map(fn (HandRunRecord $row): RunResultResource => new RunResultResource(
            recordId: $row->record_id, recordNumber: $type->numberOf($row->record_id),
            recordTitle: $this->names->title($type->name, $row->record_id) ?? '', result: $row->result, said: $row->said,
            entry: $row->entry_id,
        ));

        return new RunResource(
            id: $run->id, rule: $run->rule_id, ruleName: $run->rule->name, recordType: $run->record_type, by: $run->by->name,
            at: Value::instantText($run->at), status: $run->status->value, total: $run->total, done: $run->done, fired: $run->fired,
            results: array_values($results->all()),
        );
    }
}
