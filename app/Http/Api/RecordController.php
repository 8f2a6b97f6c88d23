<?php

declare(strict_types=1);

namespace App\Http\Api;

use App\Http\Api\Describe\Body;
use App\Http\Api\Describe\Ok;
use App\Http\Api\Describe\Query;
use App\Http\Api\Shape\Account;
use App\Http\Api\Shape\CountShape;
use App\Http\Api\Shape\FiredShape;
use App\Http\Api\Shape\ReadingShape;
use App\Http\Api\Shape\RecordPage;
use App\Http\Api\Shape\RecordShape;
use App\Http\Api\Shape\SavedOne;
use App\Http\Api\Shape\SavedShape;
use App\Http\Api\Shape\StageShape;
use App\Http\Input\AccountInput;
use App\Http\Input\FilterInput;
use App\Http\Input\NewRecordInput;
use App\Http\Input\RecordChangeInput;
use App\Http\Input\RecordListInput;
use App\Http\Input\RecordsInput;
use App\Http\Input\VersionInput;
use App\Http\Problems;
use App\Store\Access\AccessEntries;
use App\Store\Access\InSight;
use App\Store\Access\RecordGate;
use App\Store\RecordFile;
use App\Store\RecordHistory;
use App\Store\RecordList;
use App\Store\Refused;
use App\Store\RefusedFor;
use App\Store\RuleStore;
use App\Store\Saved;
use App\Store\SaveRecord;
use App\Store\Sql\ById;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use OpenApi\Attributes as OA;
use Symfony\Component\HttpFoundation\StreamedResponse;
use VividLedger\Condition\Condition;
use VividLedger\Condition\ConditionReader;
use VividLedger\Engine\Firing;
use VividLedger\Rights\Act;
use VividLedger\Rule\Reading\RulePage;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Reads;

/** Records of any type. */
final class RecordController extends Controller
{
    private const PER_PAGE = 25;

    /** What records are sorted by besides their fields. */
    private const BY_NUMBER = 'number';

    public const MOST_AT_ONCE = 200;

    public function __construct(
        private readonly RecordShapes $shapes,
        private readonly RecordGate $gate,
        private readonly InSight $inSight,
    ) {
    }

    #[OA\Get(path: '/api/records/{type}', operationId: 'records', description: 'A page of the records of a type that meet a search and a '
        .'filter.', tags: ['records'], parameters: [
            new Query('search'), new Query('filter', 'string', 'A condition, as a rule file writes it, in JSON.'), new Query(
                'sort',
                'string',
                'A field, or "number"; with "-" in front, backwards.',
            ),
            new Query('page', 'integer'), new Query('perPage', 'integer'), new Query(
                'total',
                'string',
                'Counting all that fit takes longer than a page of them; "no" leaves it out.',
                ['yes', 'no'],
            ),
        ], responses: [new Ok(RecordPage::class)])]
    public function index(string $type, RecordListInput $request, RecordList $list): RecordPage
    {
        $recordType = $this->seenType($type);
        $given = $request->validated();
        $sort = ltrim($given['sort'] ?? '', '-');
        if ($sort !== '' && $sort !== self::BY_NUMBER && $recordType->field($sort) === null) {
            throw new Refused(
                'unknown_field',
                "{$recordType->label} has no field ‘{$sort}’ to sort by.",
                RefusedFor::Invalid,
                [['at' => '/sort', 'code' => 'unknown_field', 'message' => "There is no field ‘{$sort}’."]],
            );
        }
        $page = (int) ($given['page'] ?? 1);
        $perPage = (int) ($given['perPage'] ?? self::PER_PAGE);
        [$records, $total] = $list->page($recordType, $this->condition(
            $recordType,
            $given['filter'] ?? '',
        ), trim($given['search'] ?? ''), match ($sort) {
            '' => null, self::BY_NUMBER => 'id', default => $sort
        }, str_starts_with($given['sort'] ?? '', '-'), $page, $perPage, ($given['total'] ?? 'yes') === 'yes');

        return new RecordPage($this->shapes->of($recordType, $records), $total, $page, $perPage);
    }

    #[OA\Get(path: '/api/records/{type}/file', operationId: 'recordFile', description: 'The records that meet a filter, as CSV, of those '
        .'that whoever asks may take out. That they did stands in the ledger.', tags: ['records'], parameters: [
            new Query('search'), new Query('filter', 'string', 'A condition, as a rule file writes it, in JSON.'),
        ], responses: [new OA\Response(response: 200, description: 'UTF-8, RFC 4180; the first line has the labels of the fields.',
            content: new OA\MediaType(mediaType: 'text/csv', schema: new OA\Schema(type: 'string')))])]
    public function file(string $type, RecordListInput $request, RecordFile $file, AccessEntries $entries): StreamedResponse
    {
        $recordType = $this->seenType($type);
        $given = $request->validated();
        [$condition, $search] = [$this->condition($recordType, $given['filter'] ?? ''), trim($given['search'] ?? '')];
        $entries->write('exported', $this->person($request)->id, [
            'title' => $recordType->plural, 'type' => $recordType->name, 'records' => $file->count($recordType, $condition, $search),
        ]);

        return CsvAnswer::of($recordType->name, static fn (): iterable => $file->lines($recordType, $condition, $search));
    }

    #[
        OA\Post(
            path: '/api/records/{type}/filter',
            operationId: 'readFilter',
            description: 'Reads a condition over records without keeping it: its sentences and its problems. It stands at "/filter".',
            tags: ['records'],
            requestBody: new Body(['filter' => 'object']),
            responses: [new Ok(ReadingShape::class)],
        ),
    ]
    public function readFilter(string $type, FilterInput $request, RuleShapes $shapes): ReadingShape
    {
        $context = app(Context::class, ['type' => $this->seenType($type)]);
        $filter = $request->validated()['filter'];
        $reads = new Reads;
        ConditionReader::read($context, new Node($filter, '/filter', $reads), 'Only');
        array_push($context->sheet->problems, ...$reads->unknown($filter, $context->sheet->problems, '/filter'));

        return $shapes->reading(new RulePage($context->sheet->rows, $context->sheet->problems, null));
    }

    #[
        OA\Get(
            path: '/api/records/{type}/{id}',
            operationId: 'record',
            description: 'One record.',
            tags: ['records'],
            responses: [new Ok(RecordShape::class)],
        ),
    ]
    public function show(string $type, int $id): RecordShape
    {
        $recordType = $this->type($type);
        $record = ById::record($recordType, $id) ?? throw Refused::noRecord($recordType, $id);

        return $this->shapes->of($recordType, [$record])[0];
    }

    #[
        OA\Post(
            path: '/api/records/{type}',
            operationId: 'createRecord',
            description: 'Makes a record; the rules in force answer it.',
            tags: ['records'],
            requestBody: new Body(['values' => 'object']),
            responses: [new Ok(SavedShape::class, status: 201)],
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
            requestBody: new Body(['records' => 'objects']),
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
            } catch (Refused $refused) {
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
            requestBody: new Body(['version' => 'integer', 'values' => 'object']),
            responses: [new Ok(SavedShape::class)],
        ),
    ]
    public function update(string $type, int $id, RecordChangeInput $request, SaveRecord $save): SavedShape
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
            parameters: [new Query('version', 'integer', 'Of the record as the person saw it.')],
            responses: [new Ok(SavedShape::class)],
        ),
    ]
    public function destroy(string $type, int $id, VersionInput $request, SaveRecord $save): SavedShape
    {
        $recordType = $this->type($type);
        $given = $request->validated();

        return $this->saved($recordType, $save->delete($recordType, $id, (int) $given['version'], $this->actor($request)));
    }

    #[
        OA\Post(
            path: '/api/records/{type}/{id}/restore',
            operationId: 'restoreRecord',
            description: 'Brings a deleted record back as it last was, under its own number.',
            tags: ['records'],
            responses: [new Ok(SavedShape::class)],
        ),
    ]
    public function restore(string $type, int $id, Request $request, SaveRecord $save, RecordHistory $history): SavedShape
    {
        $recordType = $this->type($type);
        $last = $history->beforeDeletion($recordType, $id) ?? throw Refused::noRecord($recordType, $id);

        return $this->saved($recordType, $save->restore($recordType, $last, $this->actor($request)));
    }

    #[
        OA\Get(
            path: '/api/records/{type}/{id}/stages',
            operationId: 'stages',
            description: 'How long the record was at each value of its stage.',
            tags: ['records'],
            responses: [new Ok(StageShape::class, list: true)],
        ),
    ]
    public function stages(string $type, int $id, Stages $stages): JsonResponse
    {
        return new JsonResponse($stages->of($this->seenType($type), $id));
    }

    #[
        OA\Get(
            path: '/api/records/{type}/{id}/account',
            operationId: 'account',
            description: 'What is ahead for a record, and what has happened to it, the newest first.',
            tags: ['records'],
            parameters: [new Query('before', 'integer', 'Only entries with a lower number.')],
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

    #[
        OA\Get(
            path: '/api/records/{type}/counts/{field}',
            operationId: 'counts',
            description: 'How many records have each value of a choice field.',
            tags: ['records'],
            responses: [new Ok(CountShape::class, list: true)],
        ),
    ]
    public function counts(string $type, string $field, RecordList $list): JsonResponse
    {
        $recordType = $this->seenType($type);
        if ($recordType->field($field)?->type !== FieldType::Choice) {
            throw new Refused('unknown_field', "{$recordType->label} has no choice field ‘{$field}’.", RefusedFor::Missing);
        }
        $counts = $list->countBy($recordType, $field);

        return new JsonResponse(array_map(
            static fn (int|string $value, int $n): CountShape => new CountShape((string) $value, $n),
            array_keys($counts),
            $counts,
        ));
    }

    /** The type as whoever asks knows it. */
    private function seenType(string $type): RecordType
    {
        return $this->inSight->sight()->type($this->type($type));
    }

    /** @param  array<array-key, mixed>  $values */
    private function mustChange(RecordType $type, int $id, array $values): void
    {
        $this->gate->mustMay(Act::Change, $type, $id);
        $this->gate->mustWrite($type, $values);
    }

    private function condition(RecordType $type, string $json): ?Condition
    {
        if ($json === '') {
            return null;
        }
        $reader = app(Context::class, ['type' => $type]);
        $filter = json_decode($json, true, 64);
        $reads = new Reads;
        $condition = ConditionReader::read($reader, new Node($filter, '/filter', $reads));
        array_push($reader->sheet->problems, ...$reads->unknown($filter, $reader->sheet->problems, '/filter'));

        return ($reader->sheet->problems === [] ? $condition : null) ?? throw new Refused(
            'invalid_filter',
            $reader->sheet->problems[0]->message ?? 'The filter cannot be read.',
            RefusedFor::Invalid,
            RuleStore::listed($reader->sheet->problems),
        );
    }

    private function saved(RecordType $type, Saved $saved): SavedShape
    {
        $fired = [];
        foreach ($saved->decision->steps as $place => $step) {
            if ($step instanceof Firing) {
                $fired[] = new FiredShape($saved->stepEntries[$place], $step->rule->id, $step->rule->name);
            }
        }

        return new SavedShape($this->shapes->of($type, [$saved->record])[0], $saved->entryId, $fired);
    }
}
