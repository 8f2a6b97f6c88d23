<?php

declare(strict_types=1);

namespace App\Http\Lists;

use App\Http\Describe\Controller;
use App\Http\Describe\CsvAnswer;
use App\Http\Describe\Ok;
use App\Http\Records\Bin;
use App\Http\Records\BinInput;
use App\Http\Records\BinPage;
use App\Http\Records\RecordPage;
use App\Http\Records\RecordResources;
use App\Http\Rules\RuleResources;
use App\Http\Writing\ReadingResource;
use App\Http\Writing\TextResource;
use App\Http\Writing\TextResources;
use App\Store\Access\AccessEntries;
use App\Store\Access\SeenContext;
use App\Store\DomainError;
use App\Store\Lists\CalledRecords;
use App\Store\Lists\RecordFile;
use App\Store\Lists\RecordList;
use App\Store\People\PeopleStore;
use App\Store\RefusedFor;
use Illuminate\Http\JsonResponse;
use OpenApi\Attributes as OA;
use Symfony\Component\HttpFoundation\StreamedResponse;
use VividLedger\Condition\ConditionReader;
use VividLedger\Listing\Column;
use VividLedger\Listing\HeardFilter;
use VividLedger\Rule\Reading\RulePage;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\KeyTracker;
use VividLedger\Shape\Node;
use VividLedger\Text\RuleText;
use VividLedger\Words\Words;

/** Lists of records of a type: pages, groups, files, and the sentences of their filters. */
final class ListController extends Controller
{
    private const PER_PAGE = 25;

    public function __construct(
        private readonly ListAsked $asked,
        private readonly RecordList $list,
        private readonly SeenContext $contexts,
    ) {
    }

    #[OA\Get(path: '/api/records/{type}', operationId: 'records', description: 'A page of the records of a type that meet a search and a '
        .'filter.', tags: ['records'], responses: [new Ok(RecordPage::class)])]
    public function index(string $type, RecordListInput $request, RecordResources $resources): RecordPage
    {
        $recordType = $this->seenType($type);
        $given = $request->validated();
        [$page, $perPage] = [(int) ($given['page'] ?? 1), (int) ($given['perPage'] ?? self::PER_PAGE)];
        $columns = $this->asked->columns($recordType, $given['columns'] ?? '');
        [$records, $total, $cells] = $this->list->page(
            $recordType, $this->asked->condition($recordType, $given['filter'] ?? ''), trim($given['search'] ?? ''),
            $this->asked->sorts($recordType, $given['sort'] ?? ''), $page, $perPage, ($given['total'] ?? 'yes') === 'yes',
            Column::far($columns),
        );

        return new RecordPage(
            $resources->inColumns($recordType, $records, $columns, $cells), $total, $page, $perPage,
            array_map(fn (Column $column): ColumnResource => $this->asked->resource($recordType, $column), $columns),
        );
    }

    #[OA\Get(path: '/api/records/{type}/groups', operationId: 'groups', description: 'How many of the records that meet a filter have each '
        .'value of a field, and what their numbers add up to; at most 500 values.', tags: ['records'],
        responses: [new Ok(GroupResource::class, list: true)])]
    public function groups(string $type, RecordGroupsInput $request, GroupResources $resources): JsonResponse
    {
        $recordType = $this->seenType($type);
        $given = $request->validated();
        $by = $this->asked->by($recordType, $given['by'] ?? '', '/by');
        $sums = $this->asked->view($recordType, ['sums' => explode(',', $given['sums'] ?? '')])->sums;
        $groups = $this->list->groups($recordType, $this->asked->condition($recordType, $given['filter'] ?? ''),
            trim($given['search'] ?? ''), $by, $sums);

        return new JsonResponse($resources->of($by->field, $sums, $groups));
    }

    #[OA\Get(path: '/api/records/{type}/file', operationId: 'recordFile', description: 'The records that meet a filter, as CSV, of those '
        .'that whoever asks may take out. That they did stands in the ledger.', tags: ['records'],
        responses: [new OA\Response(response: 200, description: 'UTF-8, RFC 4180; the first line has the labels of the fields.',
            content: new OA\MediaType(mediaType: 'text/csv', schema: new OA\Schema(type: 'string')))])]
    public function file(string $type, RecordFileInput $request, RecordFile $file, AccessEntries $entries): StreamedResponse
    {
        $recordType = $this->seenType($type);
        $given = $request->validated();
        [$condition, $search] = [$this->asked->condition($recordType, $given['filter'] ?? ''), trim($given['search'] ?? '')];
        $columns = ($given['columns'] ?? '') === '' ? null : $this->asked->columns($recordType, $given['columns']);
        $entries->write('exported', $this->person($request)->id, [
            'title' => $recordType->plural, 'type' => $recordType->name, 'records' => $file->count($recordType, $condition, $search),
        ]);

        return CsvAnswer::of($recordType->name, static fn (): iterable => $file->lines($recordType, $condition, $search, $columns));
    }

    #[
        OA\Post(
            path: '/api/records/{type}/filter',
            operationId: 'readFilter',
            description: 'Reads a condition over records without keeping it: its sentences and its problems. It stands at "/filter".',
            tags: ['records'],
            responses: [new Ok(ReadingResource::class)],
        ),
    ]
    public function readFilter(string $type, FilterInput $request, RuleResources $resources): ReadingResource
    {
        $context = $this->contexts->of($this->seenType($type));
        $filter = $request->validated()['filter'];
        $reads = new KeyTracker;
        ConditionReader::read($context, new Node($filter, '/filter', $reads), 'Only');
        array_push($context->sheet->problems, ...$reads->unknown($filter, $context->sheet->problems, '/filter'));

        return $resources->reading(new RulePage($context->sheet->rows, $context->sheet->problems, null));
    }

    #[
        OA\Post(
            path: '/api/records/{type}/filter/text',
            operationId: 'readFilterText',
            description: 'Reads conditions over records as they are typed: "status is open and customer’s depot is Quayside".',
            tags: ['records'],
            responses: [new Ok(TextResource::class)],
        ),
    ]
    public function readFilterText(string $type, FilterTextInput $request, CalledRecords $records, PeopleStore $people): TextResource
    {
        $recordType = $this->seenType($type);
        $seen = $this->contexts->of($recordType);
        $text = new RuleText($seen->schema, $seen->directory, $seen->zone);
        $asking = $people->person($this->person($request)->id) ?? throw new \LogicException('Whoever asks is a person.');
        $heard = new HeardFilter($text, $recordType, $asking, $people->peopleAtWork(), $records);

        return TextResources::of(
            $heard->read((string) $request->validated()['text']),
            static fn (array $json): string => $text->printPart($json, 'onlyIf', $recordType),
        );
    }

    #[
        OA\Get(
            path: '/api/records/{type}/bin',
            operationId: 'bin',
            description: 'The records of a type that were deleted last and can be brought back.',
            tags: ['records'],
            responses: [new Ok(BinPage::class)],
        ),
    ]
    public function bin(string $type, BinInput $request, Bin $bin): BinPage
    {
        return $bin->of($this->type($type), self::number($request->validated(), 'before'));
    }

    #[
        OA\Get(
            path: '/api/records/{type}/counts/{field}',
            operationId: 'counts',
            description: 'How many records have each value of a choice field.',
            tags: ['records'],
            responses: [new Ok(CountResource::class, list: true)],
        ),
    ]
    public function counts(string $type, string $field): JsonResponse
    {
        $recordType = $this->seenType($type);
        if ($recordType->field($field)?->type !== FieldType::Choice) {
            throw new DomainError(
                'unknown_field',
                Words::say('{recordType} has no choice field ‘{field}’.', recordType: $recordType->label, field: $field),
                RefusedFor::Missing,
            );
        }
        $counts = $this->list->countBy($recordType, $field);

        return new JsonResponse(array_map(
            static fn (int|string $value, int $n): CountResource => new CountResource((string) $value, $n),
            array_keys($counts),
            $counts,
        ));
    }
}
