<?php

declare(strict_types=1);

namespace App\Http\Lists;

use App\Evidence\Lists\BulkPreview;
use App\Evidence\Lists\GoThroughBulk;
use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Models\Lists\BulkJob;
use App\Models\Lists\BulkKind;
use App\Store\Access\AccessScope;
use App\Store\Access\RecordAuthorizer;
use App\Store\Import\ImportPlan;
use App\Store\Lists\BulkStore;
use App\Store\Lists\Chosen;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use OpenApi\Attributes as OA;
use VividLedger\Rights\Act;

/** Many records changed at once: tried on paper, begun, watched, stopped, taken back. */
final class BulkController extends Controller
{
    private const LATEST = 20;

    public function __construct(
        private readonly BulkStore $bulk,
        private readonly BulkResources $resources,
        private readonly RecordAuthorizer $gate,
        private readonly ListAsked $asked,
        private readonly AccessScope $inSight,
    ) {
    }

    #[
        OA\Post(
            path: '/api/bulk/preview',
            operationId: 'previewBulk',
            description: 'What changing many records would come to: which rules would fire how often, and what would be refused. Without '
                .'"records" it is about all that meet the filter and the search.',
            tags: ['bulk'],
            responses: [new Ok(BulkPreviewResource::class)],
        ),
    ]
    public function preview(BulkInput $request, BulkPreview $preview): BulkPreviewResource
    {
        return BulkResources::preview($preview->change($this->chosen($request), $request->validated()['values'], $this->actor($request)));
    }

    #[
        OA\Post(
            path: '/api/bulk',
            operationId: 'changeMany',
            description: 'Begins to change many records, each as if it were changed alone; it goes on in the background.',
            tags: ['bulk'],
            responses: [new Ok(BulkResource::class, status: 201)],
        ),
    ]
    public function store(BulkInput $request): JsonResponse
    {
        $job = $this->bulk->change($this->chosen($request), $request->validated()['values'], $this->person($request));
        GoThroughBulk::dispatch();

        return new JsonResponse($this->resources->of($job), 201);
    }

    #[
        OA\Get(
            path: '/api/bulk',
            operationId: 'bulkJobs',
            description: 'The latest work on many records that whoever asks has begun.',
            tags: ['bulk'],
            responses: [new Ok(BulkResource::class, list: true)],
        ),
    ]
    public function index(Request $request): JsonResponse
    {
        $jobs = BulkJob::query()->where('by_id', $this->person($request)->id)->with('by')->latest('id')->limit(self::LATEST)->get();

        return new JsonResponse(array_values($jobs->map(fn (BulkJob $job): BulkResource => $this->resources->of($job))->all()));
    }

    #[
        OA\Get(
            path: '/api/bulk/{id}',
            operationId: 'bulkJob',
            description: 'Work on many records: how far it is, and what could not be done.',
            tags: ['bulk'],
            responses: [new Ok(BulkResource::class)],
        ),
    ]
    public function show(int $id, Request $request): BulkResource
    {
        return $this->resources->of($this->bulk->seen($id, $this->person($request)));
    }

    #[
        OA\Post(
            path: '/api/bulk/{id}/stop',
            operationId: 'stopBulk',
            description: 'Stops it behind the records it is at. What is done stays done.',
            tags: ['bulk'],
            responses: [new Ok(BulkResource::class)],
        ),
    ]
    public function stop(int $id, Request $request): BulkResource
    {
        return $this->turned($id, $request, $this->bulk->stop(...));
    }

    #[
        OA\Post(
            path: '/api/bulk/{id}/go-on',
            operationId: 'goOnBulk',
            description: 'Goes on where it was stopped.',
            tags: ['bulk'],
            responses: [new Ok(BulkResource::class)],
        ),
    ]
    public function goOn(int $id, Request $request): BulkResource
    {
        return $this->turned($id, $request, $this->bulk->goOn(...));
    }

    #[
        OA\Post(
            path: '/api/bulk/{id}/undo',
            operationId: 'undoBulk',
            description: 'Takes back what it did, and what rules did because of it. What was sent stays sent; what somebody has changed '
                .'since stays.',
            tags: ['bulk'],
            responses: [new Ok(BulkResource::class)],
        ),
    ]
    public function undo(int $id, Request $request): BulkResource
    {
        return $this->turned($id, $request, $this->bulk->undo(...));
    }

    /** @param  \Closure(BulkJob): void  $turn */
    private function turned(int $id, Request $request, \Closure $turn): BulkResource
    {
        $job = $this->bulk->own($id, $this->person($request));
        foreach ($job->kind === BulkKind::Import ? ImportPlan::of($job)->mode->acts() : [Act::Change] as $act) {
            $this->gate->mustEver($act, $this->type($job->record_type));
        }
        $turn($job);
        GoThroughBulk::dispatch();

        return $this->resources->of($job);
    }

    private function chosen(BulkInput $request): Chosen
    {
        $given = $request->validated();
        $type = $this->type($given['recordType']);
        $this->gate->mustEver(Act::Change, $type);
        $this->gate->mustWrite($type, $given['values']);
        if (isset($given['records'])) {
            $ids = array_values(array_map(intval(...), $given['records']));
            $this->gate->mustMayAll(Act::Change, $type, $ids);

            return Chosen::some($type, $ids);
        }
        $seen = $this->inSight->sight()->type($type);

        return Chosen::allThatFit($type, $this->asked->condition($seen, $given['filter'] ?? ''), trim($given['search'] ?? ''));
    }
}
