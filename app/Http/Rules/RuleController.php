<?php

declare(strict_types=1);

namespace App\Http\Rules;

use App\Evidence\Rehearsal\ProofFile;
use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Http\Outbound\DifferenceInput;
use App\Http\Outbound\DifferenceLine;
use App\Http\Records\RecordResources;
use App\Http\Writing\ReadingResource;
use App\Http\Writing\WrittenResource;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\Lists\RecordList;
use App\Store\RefusedFor;
use App\Store\Rules\Existing;
use App\Store\Rules\RuleCopy;
use App\Store\Rules\RuleDoor;
use App\Store\Rules\RuleFile;
use App\Store\Rules\RuleOrder;
use App\Store\Rules\RuleStore;
use App\Store\Timing\RunMover;
use App\Work\Rules\RulePublisher;
use App\Work\Timing\ExistingRecords;
use Illuminate\Database\Connection;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;
use OpenApi\Attributes as OA;
use VividLedger\Condition\All;
use VividLedger\Record\Value;
use VividLedger\Rehearse\LineDifference;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Rule\RuleStatus;
use VividLedger\Words\Words;

/** Rules: written, put in force, paused, retired, carried in and out as files. */
final class RuleController extends Controller
{
    public function __construct(
        private readonly RuleResources $resources,
        private readonly RuleStore $rules,
        private readonly RulePublisher $publisher,
        private readonly RuleReader $reader,
        private readonly RuleDoor $door,
    ) {
    }

    #[
        OA\Get(
            path: '/api/rules',
            operationId: 'rules',
            description: 'All rules, in the order they are asked.',
            tags: ['rules'],
            responses: [new Ok(RuleSummary::class, list: true)],
        ),
    ]
    public function index(): JsonResponse
    {
        return new JsonResponse($this->resources->all());
    }

    #[
        OA\Post(
            path: '/api/rules',
            operationId: 'startRule',
            description: 'Starts a draft from a rule file, finished or not.',
            tags: ['rules'],
            responses: [new Ok(RuleResource::class, status: 201)],
        ),
    ]
    public function store(RuleFileInput $request): JsonResponse
    {
        $given = $request->validated();

        return new JsonResponse($this->resources->one($this->rules->draft($given['file'], $this->person($request)->id)), 201);
    }

    #[
        OA\Post(
            path: '/api/rules/read',
            operationId: 'readRule',
            description: 'Reads a rule file without keeping it: its sentences and its problems.',
            tags: ['rules'],
            responses: [new Ok(ReadingResource::class)],
        ),
    ]
    public function read(RuleFileInput $request): ReadingResource
    {
        $given = $request->validated();

        return $this->resources->reading($this->door->read($given['file']));
    }

    #[
        OA\Post(
            path: '/api/rules/import',
            operationId: 'importRule',
            description: 'Starts a draft from the text of a rule file. Either all of it is sound, or nothing is kept.',
            tags: ['rules'],
            responses: [new Ok(RuleResource::class, status: 201)],
        ),
    ]
    public function import(RuleImportInput $request, RuleFile $files, ProofFile $proofs, Connection $db): JsonResponse
    {
        $given = $request->validated();

        $by = $this->person($request)->id;
        $file = $files->read($given['text']);
        $travelled = $file['proofs'] ?? [];
        unset($file['proofs']);
        $id = $db->transaction(function () use ($file, $travelled, $by, $proofs): int {
            $id = $this->rules->draft($file, $by);
            $rule = $this->reader->read($file, $id)->rule;
            if ($rule !== null) {
                $proofs->read($travelled, $id, $rule, $by);
            }

            return $id;
        });

        return new JsonResponse($this->resources->one($id), 201);
    }

    #[
        OA\Get(
            path: '/api/rules/{id}',
            operationId: 'rule',
            description: 'One rule: its page in force, and its draft.',
            tags: ['rules'],
            responses: [new Ok(RuleResource::class)],
        ),
    ]
    public function show(int $id): RuleResource
    {
        return $this->resources->one($id);
    }

    #[
        OA\Put(
            path: '/api/rules/{id}/draft',
            operationId: 'writeDraft',
            description: 'Writes the draft of a rule, finished or not; what is in force stays as it is.',
            tags: ['rules'],
            responses: [new Ok(WrittenResource::class)],
        ),
    ]
    public function write(int $id, DraftInput $request, HouseClock $clock): WrittenResource
    {
        $given = $request->validated();
        $version = $this->rules->write($id, (int) $given['version'], $given['file'], $this->person($request)->id);

        $reading = $this->resources->reading($this->door->read($given['file']));

        return new WrittenResource($version, Value::instantText($clock->now()), $reading);
    }

    #[
        OA\Delete(
            path: '/api/rules/{id}/draft',
            operationId: 'discardDraft',
            description: 'Throws the draft away; a rule that was never in force goes with it.',
            tags: ['rules'],
            responses: [new Ok],
        ),
    ]
    public function discard(int $id): Response
    {
        $this->rules->discard($id);

        return response()->noContent();
    }

    #[
        OA\Post(
            path: '/api/rules/{id}/publish',
            operationId: 'publishRule',
            description: 'Makes the draft the next page and puts it in force. What matches already is left as it is (leave), counted as '
                .'done (count), or started, spread over so many hours (start). Runs in play stay on their page, or move.',
            tags: ['rules'],
            responses: [new Ok(RuleResource::class)],
        ),
    ]
    public function publish(int $id, PublishInput $request): RuleResource
    {
        $given = $request->validated();
        $this->publisher->publish(
            $id, (int) $given['version'], $this->person($request)->id, Existing::from($given['existing'] ?? 'leave'),
            (int) ($given['hours'] ?? 0), (bool) ($given['move'] ?? false), trim((string) ($given['why'] ?? '')),
        );

        return $this->resources->one($id);
    }

    #[
        OA\Get(
            path: '/api/rules/{id}/moving',
            operationId: 'moving',
            description: 'What would become of the runs in play if they moved to the page as it is written now.',
            tags: ['rules'],
            responses: [new Ok(MoveResource::class)],
        ),
    ]
    public function moving(int $id, RunMover $mover): MoveResource
    {
        $resource = $this->resources->one($id);
        $rule = $this->door->read($resource->file, $id, ($resource->page ?? 0) + 1)->rule;
        $count = $rule === null ? ['runs' => $mover->inPlay($id), 'moved' => 0, 'struck' => 0, 'added' => 0] : $mover->move($rule, false);

        return new MoveResource(...$count);
    }

    #[
        OA\Post(
            path: '/api/rules/{id}/status',
            operationId: 'moveRule',
            description: 'Pauses a rule, puts it back in force, or retires it.',
            tags: ['rules'],
            responses: [new Ok(RuleResource::class)],
        ),
    ]
    public function move(int $id, RuleStatusInput $request): RuleResource
    {
        $given = $request->validated();
        $this->publisher->move($id, RuleStatus::from($given['status']), $this->person($request)->id);

        return $this->resources->one($id);
    }

    #[
        OA\Post(
            path: '/api/rules/order',
            operationId: 'orderRules',
            description: 'The order in which the rules of a record type answer.',
            tags: ['rules'],
            responses: [new Ok(RuleSummary::class, list: true)],
        ),
    ]
    public function order(RuleOrderInput $request, RuleOrder $order): JsonResponse
    {
        $given = $request->validated();
        $order->arrange(
            $this->type($given['recordType'])->name,
            array_values(array_map(intval(...), $given['rules'])),
            $this->person($request)->id,
        );

        return $this->index();
    }

    #[
        OA\Post(
            path: '/api/rules/{id}/either-or',
            operationId: 'standInSet',
            description: 'Puts a rule into an either/or set, of which only the first that matches fires; an empty name takes it out.',
            tags: ['rules'],
            responses: [new Ok(RuleResource::class)],
        ),
    ]
    public function stand(int $id, EitherOrInput $request, RuleOrder $order): RuleResource
    {
        $given = $request->validated();
        $order->stand($id, (string) $given['set'], $this->person($request)->id);

        return $this->resources->one($id);
    }

    #[
        OA\Post(
            path: '/api/rules/{id}/copy',
            operationId: 'copyRule',
            description: 'Starts a draft from a rule, for the same records or for others; what does not fit there is listed as its '
                .'problems.',
            tags: ['rules'],
            responses: [new Ok(RuleResource::class, status: 201)],
        ),
    ]
    public function copy(int $id, RuleCopyInput $request): JsonResponse
    {
        $given = $request->validated();
        $file = RuleCopy::of($this->resources->one($id)->file, $this->type($given['on']));

        return new JsonResponse($this->resources->one($this->rules->draft($file, $this->person($request)->id)), 201);
    }

    #[
        OA\Get(
            path: '/api/rules/{id}/pages',
            operationId: 'rulePages',
            description: 'The pages of a rule over time, the latest first.',
            tags: ['rules'],
            responses: [new Ok(PageResource::class, list: true)],
        ),
    ]
    public function pages(int $id): JsonResponse
    {
        return new JsonResponse($this->resources->pages($id));
    }

    #[
        OA\Get(
            path: '/api/rules/{id}/difference',
            operationId: 'pageDifference',
            description: 'Two pages sentence by sentence; without the second, the draft.',
            tags: ['rules'],
            responses: [new Ok(DifferenceLine::class, list: true)],
        ),
    ]
    public function difference(int $id, DifferenceInput $request): JsonResponse
    {
        $given = $request->validated();
        $files = array_column($this->resources->pages($id), 'file', 'number');
        $from = $files[(int) $given['from']]
            ?? throw DomainError::missing(Words::say('This rule has no page {from}.', from: $given['from']));
        $to = isset($given['to']) ? ($files[(int) $given['to']]
            ?? throw DomainError::missing(Words::say('This rule has no page {to}.', to: $given['to'])))
                : $this->resources->one($id)->file;

        return new JsonResponse(array_map(
            static fn (array $line): DifferenceLine => new DifferenceLine($line[0], $line[1]),
            LineDifference::between($this->reader->read($from)->sentences(), $this->reader->read($to)->sentences()),
        ));
    }

    #[
        OA\Post(
            path: '/api/rules/{id}/pages/{number}/back',
            operationId: 'bringBack',
            description: 'Makes an old page the draft, to be put in force like any other.',
            tags: ['rules'],
            responses: [new Ok(RuleResource::class)],
        ),
    ]
    public function bringBack(int $id, int $number, VersionInput $request): RuleResource
    {
        $given = $request->validated();
        $files = array_column($this->resources->pages($id), 'file', 'number');
        $this->rules->write(
            $id,
            (int) $given['version'],
            $files[$number] ?? throw DomainError::missing(Words::say('This rule has no page {number}.', number: $number)),
            $this->person($request)->id,
        );

        return $this->resources->one($id);
    }

    #[
        OA\Get(
            path: '/api/rules/{id}/file',
            operationId: 'ruleFile',
            description: 'The rule as a file that another company can import.',
            tags: ['rules'],
            responses: [
                new OA\Response(
                    response: 200,
                    description: 'A rule file.',
                    content: new OA\MediaType(
                        mediaType: 'application/json',
                        schema: new OA\Schema(type: 'object', additionalProperties: true),
                    ),
                ),
            ],
        ),
    ]
    public function file(int $id, PageInput $request, RuleFile $files, ProofFile $proofs): Response
    {
        $given = $request->validated();
        $rule = $this->resources->one($id);
        $file = $rule->file;
        if (isset($given['page'])) {
            $pages = array_column($this->resources->pages($id), 'file', 'number');
            $file = $pages[(int) $given['page']]
                ?? throw DomainError::missing(Words::say('This rule has no page {page}.', page: $given['page']));
        }
        $name = trim((string) preg_replace('/[^a-z0-9]+/', '-', mb_strtolower($rule->name)), '-');

        $travelling = $proofs->write($id, $rule->on);

        return response(
            $files->write($file + ($travelling === [] ? [] : ['proofs' => $travelling]), $this->door->read($file, $id)->rule !== null),
            200,
            [
                'Content-Type' => 'application/json',
                'Content-Disposition' => 'attachment; filename="'.($name === '' ? 'rule' : $name).'.rule.json"',
            ],
        );
    }

    #[
        OA\Get(
            path: '/api/rules/{id}/matching',
            operationId: 'matching',
            description: 'How many records meet the conditions of the rule as it is written now.',
            tags: ['rules'],
            responses: [new Ok(MatchResource::class)],
        ),
    ]
    public function matching(int $id, RecordList $list, RecordResources $records, ExistingRecords $existing): MatchResource
    {
        $resource = $this->resources->one($id);
        $page = $this->door->read($resource->file, $id);
        if ($page->rule === null) {
            throw new DomainError(
                'unfinished_rule',
                Words::say('The rule is not finished.'),
                RefusedFor::Invalid,
                RuleStore::listed($page->problems),
            );
        }
        $type = $this->type($resource->on);
        [$examples] = $list->page($type, $page->rule->condition, '', [], 1, 5, counted: false);

        $matching = $list->count($type, $page->rule->condition);
        $starting = $existing->number($page->rule) ?? $matching;

        return new MatchResource(
            $matching,
            $starting,
            max(0, $matching - $starting),
            $list->count($type, new All([])),
            $records->of($type, $examples),
        );
    }
}
