<?php

declare(strict_types=1);

namespace App\Http\Import;

use App\Evidence\Import\ImportPiece;
use App\Evidence\Lists\GoThroughBulk;
use App\Http\Describe\Controller;
use App\Http\Describe\CsvAnswer;
use App\Http\Describe\Ok;
use App\Http\Lists\BulkResources;
use App\Models\Import\ImportProblem;
use App\Models\Lists\BulkJob;
use App\Models\Lists\BulkKind;
use App\Store\Access\AccessScope;
use App\Store\Access\RecordAuthorizer;
use App\Store\CsvLine;
use App\Store\DomainError;
use App\Store\Import\ImportPlan;
use App\Store\Import\ImportStore;
use App\Store\Import\ProblemGroups;
use App\Store\Lists\BulkStore;
use App\Store\RefusedFor;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use OpenApi\Attributes as OA;
use Symfony\Component\HttpFoundation\StreamedResponse;
use VividLedger\Import\Mode;
use VividLedger\Rights\Act;
use VividLedger\Schema\RecordType;
use VividLedger\Words\Words;

/** Files become records: sent in pieces, read, tried, brought in, and taken back if need be (as any work on many records). */
final class ImportController extends Controller
{
    private const PROBLEMS = 200;

    public function __construct(
        private readonly ImportStore $imports,
        private readonly BulkStore $bulk,
        private readonly BulkResources $resources,
        private readonly RecordAuthorizer $gate,
        private readonly AccessScope $inSight,
    ) {
    }

    #[
        OA\Post(
            path: '/api/imports',
            operationId: 'beginImport',
            description: 'Begins to bring in a file (CSV, of any encoding and delimiter), at most 50 MB and 500,000 rows.',
            tags: ['bulk'],
            responses: [new Ok(ImportResource::class, status: 201)],
        ),
    ]
    public function store(ImportInput $request): JsonResponse
    {
        $given = $request->validated();
        $type = $this->type($given['recordType']);
        $this->mustImport($type, Act::Create);

        return new JsonResponse($this
            ->resource($this->imports->begin($type, $this->person($request), $given['name'], (int) $given['bytes'])), 201);
    }

    #[
        OA\Put(
            path: '/api/imports/{id}/pieces/{number}',
            operationId: 'sendImportPiece',
            description: 'A piece of the file, of a million bytes; the first has the number 0. It may be sent again.',
            tags: ['bulk'],
            requestBody: new OA\RequestBody(required: true, content: new OA\MediaType(
                mediaType: 'application/octet-stream', schema: new OA\Schema(type: 'string', format: 'binary'))),
            responses: [new Ok],
        ),
    ]
    public function piece(int $id, int $number, Request $request): Response
    {
        $this->imports->put($this->own($id, $request), $number, (string) $request->getContent());

        return response()->noContent();
    }

    #[
        OA\Post(
            path: '/api/imports/{id}/read',
            operationId: 'readImport',
            description: 'Reads how the file is written, counts its rows, and guesses which column is for which field.',
            tags: ['bulk'],
            responses: [new Ok(ImportResource::class)],
        ),
    ]
    public function read(int $id, Request $request): ImportResource
    {
        $job = $this->own($id, $request);
        $this->imports->read($job);

        return $this->resource($job);
    }

    #[
        OA\Post(
            path: '/api/imports/{id}/try',
            operationId: 'tryImport',
            description: 'Goes through all rows without saving anything, in the background: every problem is told by row and field, and '
                .'which rules would answer.',
            tags: ['bulk'],
            responses: [new Ok(ImportResource::class)],
        ),
    ]
    public function try(int $id, ImportPlanInput $request): ImportResource
    {
        $job = $this->own($id, $request);
        $given = $request->validated();
        $mode = Mode::from($given['mode']);
        $type = $this->type($job->record_type);
        foreach ($mode->acts() as $act) {
            $this->mustImport($type, $act);
        }
        $this->gate->mustWrite($type, array_fill_keys(array_diff(array_filter($given['mapping'], is_string(...)), ['number']), null));
        $this->imports->plan($job, $given['mapping'], ($given['key'] ?? '') === '' ? null : $given['key'], $mode,
            $given['values'] ?? []);
        GoThroughBulk::dispatch();

        return $this->resource($job);
    }

    #[
        OA\Post(
            path: '/api/imports/{id}/start',
            operationId: 'startImport',
            description: 'Brings in the rows in which nothing is wrong, in the background. "answered" says whether rules start.',
            tags: ['bulk'],
            responses: [new Ok(ImportResource::class)],
        ),
    ]
    public function start(int $id, ImportStartInput $request): ImportResource
    {
        $job = $this->own($id, $request);
        $this->imports->start($job, (bool) $request->validated()['answered']);
        GoThroughBulk::dispatch();

        return $this->resource($job);
    }

    #[
        OA\Get(
            path: '/api/imports/{id}',
            operationId: 'import',
            description: 'An import: what its columns are for, how far it is, and what is wrong.',
            tags: ['bulk'],
            responses: [new Ok(ImportResource::class)],
        ),
    ]
    public function show(int $id, Request $request): ImportResource
    {
        return $this->resource($this->own($id, $request));
    }

    #[OA\Get(path: '/api/imports/{id}/report', operationId: 'importReport', description: 'The rows that did not become records, as they '
        .'were, with why: mended, they can be brought in again.', tags: ['bulk'], responses: [new OA\Response(response: 200,
            description: 'UTF-8, RFC 4180.', content: new OA\MediaType(mediaType: 'text/csv', schema: new OA\Schema(type: 'string')))])]
    public function report(int $id, Request $request): StreamedResponse
    {
        $job = $this->own($id, $request);

        return CsvAnswer::of("left-out-{$id}", static function () use ($job): iterable {
            // Parted as it came, so that whoever mends it finds what they know.
            $plan = ImportPlan::of($job);
            yield CsvLine::of([Words::say('Row'), Words::say('Why'), ...$plan->heads], $plan->delimiter);
            foreach (ImportPiece::leftOut($job) as [$row, $cells, $why]) {
                yield CsvLine::of([(string) $row, $why, ...$cells], $plan->delimiter);
            }
        });
    }

    private function own(int $id, Request $request): BulkJob
    {
        $job = $this->bulk->own($id, $this->person($request));

        return $job->kind === BulkKind::Import ? $job : throw DomainError::missing(Words::say('There is no such import.'));
    }

    /** Rows of a file are anybody's records: whoever brings them in may do so with everybody's. */
    private function mustImport(RecordType $type, Act $act): void
    {
        $this->gate->mustEver($act, $type);
        if (! $this->inSight->isUnbounded($act, $type->name)) {
            throw new DomainError(
                'not_allowed', Words::say(
                    'Files of {type} are brought in by whoever may make and change everybody’s.',
                    type: $type->plural,
                ),
                RefusedFor::NotAllowed,
            );
        }
    }

    /** @return list<ImportValueResource> */
    private static function values(ImportPlan $plan): array
    {
        $values = [];
        foreach ($plan->values as $field => $meant) {
            foreach ($meant as $from => $to) {
                $values[] = new ImportValueResource($field, (string) $from, $to);
            }
        }

        return $values;
    }

    private function resource(BulkJob $job): ImportResource
    {
        $plan = ImportPlan::of($job);
        $problems = $job->problems()->orderBy('row')->orderBy('id')->limit(self::PROBLEMS)->get();

        return new ImportResource(
            job: $this->resources->of($job), name: $plan->name, encoding: $plan->encoding, delimiter: $plan->delimiter,
            columns: array_map(static fn (int $place, string $head): ImportColumnResource => new ImportColumnResource(
                $place, $head, $job->spec['samples'][$place] ?? [], $plan->fields[$place] ?? null,
            ), array_keys($plan->heads), $plan->heads),
            key: $plan->key, mode: $plan->mode->value, create: (int) ($job->spec['create'] ?? 0),
            update: (int) ($job->spec['update'] ?? 0), same: (int) ($job->spec['same'] ?? 0),
            problems: array_values($problems->map(static fn (ImportProblem $problem): ImportProblemResource => new ImportProblemResource(
                $problem->row, $problem->field, $problem->said,
            ))->all()),
            tried: (int) ($job->spec['tried'] ?? 0), rules: BulkResources::rules($job->spec['rules'] ?? []),
            refusals: BulkResources::reasons($job->spec['refusals'] ?? []), stoppedBecause: (string) ($job->spec['stoppedBecause'] ?? ''),
            groups: array_map(static fn (array $group): ImportGroupResource => new ImportGroupResource(...$group), ProblemGroups::of($job)),
            values: self::values($plan),
        );
    }
}
