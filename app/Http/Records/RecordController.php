<?php

declare(strict_types=1);

namespace App\Http\Records;

use App\Http\Access\Account;
use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Http\Ledger\Entries;
use App\Http\Lists\RecordsInput;
use App\Http\Lists\SavedOne;
use App\Http\People\AccountInput;
use App\Http\Problems;
use App\Http\Rules\FiredResource;
use App\Http\Rules\VersionInput;
use App\Http\Timing\Ahead;
use App\Store\Access\RecordAuthorizer;
use App\Store\DomainError;
use App\Store\Records\Merge;
use App\Store\Records\RecordHistory;
use App\Store\Records\Saved;
use App\Store\Records\SaveRecord;
use App\Store\Sql\RecordSql;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use OpenApi\Attributes as OA;
use VividLedger\Engine\Firing;
use VividLedger\Rights\Act;
use VividLedger\Schema\RecordType;

/** Records of any type. */
final class RecordController extends Controller
{
    public const MOST_AT_ONCE = 200;

    public function __construct(
        private readonly RecordResources $resources,
        private readonly RecordAuthorizer $gate,
    ) {
    }

    #[
        OA\Get(
            path: '/api/records/{type}/{id}',
            operationId: 'record',
            description: 'One record.',
            tags: ['records'],
            responses: [new Ok(RecordResource::class)],
        ),
    ]
    public function show(string $type, int $id): RecordResource
    {
        $recordType = $this->type($type);
        $record = RecordSql::record($recordType, $id) ?? throw DomainError::noRecord($recordType, $id);

        return $this->resources->of($recordType, [$record])[0];
    }

    #[
        OA\Post(
            path: '/api/records/{type}',
            operationId: 'createRecord',
            description: 'Makes a record; the rules in force answer it.',
            tags: ['records'],
            responses: [new Ok(SavedResource::class, status: 201)],
        ),
    ]
    public function store(string $type, NewRecordInput $request, SaveRecord $save): JsonResponse
    {
        $recordType = $this->type($type);
        $given = $request->validated();
        $this->gate->mustMake($recordType, $given['values']);

        return new JsonResponse($this->saved($recordType, $save->create($recordType, $given['values'], $this->actor($request))), 201);
    }

    #[
        OA\Post(
            path: '/api/records/{type}/several',
            operationId: 'saveRecords',
            description: 'Makes and changes up to 200 records, each as if it came alone: with its own rules, its own entries and its own '
                .'result, in the order given. One that is refused keeps no other from being saved.',
            tags: ['records'],
            responses: [new Ok(SavedOne::class, list: true)],
        ),
    ]
    public function several(string $type, RecordsInput $request, SaveRecord $save): JsonResponse
    {
        $recordType = $this->type($type);
        $given = $request->validated();
        $results = [];
        foreach (array_values($given['records']) as $one) {
            try {
                isset($one['id']) ? $this->mustChange($recordType, (int) $one['id'], $one['values'])
                    : $this->gate->mustMake($recordType, $one['values']);
                $saved = isset($one['id'])
                    ? $save->change($recordType, (int) $one['id'], (int) $one['version'], $one['values'], $this->actor($request))
                    : $save->create($recordType, $one['values'], $this->actor($request));
                $results[] = new SavedOne(isset($one['id']) ? 'changed' : 'created', $this->saved($recordType, $saved), null);
            } catch (DomainError $refused) {
                $results[] = new SavedOne('refused', null, Problems::described($refused));
            }
        }

        return new JsonResponse($results);
    }

    #[
        OA\Patch(
            path: '/api/records/{type}/{id}',
            operationId: 'changeRecord',
            description: 'Changes values of a record; the rules in force answer it. Values nobody else has changed since the version that '
                .'is named go through, whatever else has.',
            tags: ['records'],
            responses: [new Ok(SavedResource::class)],
        ),
    ]
    public function update(string $type, int $id, RecordChangeInput $request, SaveRecord $save): SavedResource
    {
        $recordType = $this->type($type);
        $given = $request->validated();
        $this->gate->mustWrite($recordType, $given['values']);

        return $this->saved(
            $recordType,
            $save->change($recordType, $id, (int) $given['version'], $given['values'], $this->actor($request)),
        );
    }

    #[
        OA\Delete(
            path: '/api/records/{type}/{id}',
            operationId: 'deleteRecord',
            description: 'Deletes a record. Its history stays, and it can be brought back.',
            tags: ['records'],
            responses: [new Ok(SavedResource::class)],
        ),
    ]
    public function destroy(string $type, int $id, VersionInput $request, SaveRecord $save): SavedResource
    {
        $recordType = $this->type($type);
        $given = $request->validated();

        return $this->saved($recordType, $save->delete($recordType, $id, (int) $given['version'], $this->actor($request)));
    }

    #[
        OA\Post(
            path: '/api/records/{type}/{id}/merge',
            operationId: 'mergeRecords',
            description: 'Makes one record of two. What names the other names this one from now on, its comments, files, followers and '
                .'open tasks move, and it goes to the bin.',
            tags: ['records'],
            responses: [new Ok(SavedResource::class)],
        ),
    ]
    public function merge(string $type, int $id, MergeInput $request, Merge $merge): SavedResource
    {
        $recordType = $this->type($type);
        $given = $request->validated();
        $this->gate->mustMay(Act::Delete, $recordType, (int) $given['other']);
        $this->gate->mustWrite($recordType, $given['values'] ?? []);

        return $this->saved($recordType, $merge->into(
            $recordType, $id, (int) $given['version'], (int) $given['other'], (int) $given['otherVersion'], $given['values'] ?? [],
            $this->actor($request),
        ));
    }

    #[
        OA\Post(
            path: '/api/records/{type}/{id}/restore',
            operationId: 'restoreRecord',
            description: 'Brings a deleted record back as it last was, under its own number.',
            tags: ['records'],
            responses: [new Ok(SavedResource::class)],
        ),
    ]
    public function restore(string $type, int $id, Request $request, SaveRecord $save, RecordHistory $history): SavedResource
    {
        $recordType = $this->type($type);
        $last = $history->beforeDeletion($recordType, $id) ?? throw DomainError::noRecord($recordType, $id);

        return $this->saved($recordType, $save->restore($recordType, $last, $this->actor($request)));
    }

    #[
        OA\Get(
            path: '/api/records/{type}/{id}/stages',
            operationId: 'stages',
            description: 'How long the record was at each value of its stage.',
            tags: ['records'],
            responses: [new Ok(StageResource::class, list: true)],
        ),
    ]
    public function stages(string $type, int $id, Stages $stages): JsonResponse
    {
        return new JsonResponse($stages->of($this->seenType($type), $id));
    }

    #[
        OA\Get(
            path: '/api/records/{type}/{id}/stages/ahead',
            operationId: 'stagesAhead',
            description: 'To which stages the record could go, what rules ask for first, and which would fire.',
            tags: ['records'],
            responses: [new Ok(StageAheadResource::class, list: true)],
        ),
    ]
    public function stagesAhead(Request $request, string $type, int $id, StagesAhead $stages): JsonResponse
    {
        return new JsonResponse($stages->of($this->seenType($type), $id, $this->actor($request)));
    }

    #[
        OA\Get(
            path: '/api/records/{type}/{id}/account',
            operationId: 'account',
            description: 'What is ahead for a record, and what has happened to it, the newest first.',
            tags: ['records'],
            responses: [new Ok(Account::class)],
        ),
    ]
    public function account(string $type, int $id, AccountInput $request, Entries $entries, Ahead $ahead): Account
    {
        $recordType = $this->type($type);
        $given = $request->validated();
        $read = $entries->ofRecord($recordType->name, $id, (int) ($given['before'] ?? PHP_INT_MAX));

        return new Account(
            $ahead->ofRecord($recordType->name, $id),
            $read,
            count($read) === Entries::A_PAGE ? $read[Entries::A_PAGE - 1]->number : null,
        );
    }

    /** @param  array<array-key, mixed>  $values */
    private function mustChange(RecordType $type, int $id, array $values): void
    {
        $this->gate->mustMay(Act::Change, $type, $id);
        $this->gate->mustWrite($type, $values);
    }

    private function saved(RecordType $type, Saved $saved): SavedResource
    {
        $fired = [];
        foreach ($saved->decision->steps as $place => $step) {
            if ($step instanceof Firing) {
                $fired[] = new FiredResource($saved->stepEntries[$place], $step->rule->id, $step->rule->name);
            }
        }

        return new SavedResource($this->resources->of($type, [$saved->record])[0], $saved->entryId, $fired);
    }
}
