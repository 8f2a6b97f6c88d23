<?php

declare(strict_types=1);

namespace App\Http\Api;

use App\Http\Api\Describe\Body;
use App\Http\Api\Describe\Ok;
use App\Http\Api\Shape\LetterShape;
use App\Http\Api\Shape\LetterVersionShape;
use App\Http\Api\Shape\NamedShape;
use App\Store\Columns;
use App\Store\KeptStore;
use App\Store\RecordList;
use App\Store\Refused;
use Illuminate\Database\Connection;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use OpenApi\Attributes as OA;
use VividLedger\Rule\Reading\ConditionReader;
use VividLedger\Rule\Reading\Node;
use VividLedger\Rule\Reading\RulePage;

/** Letters and named conditions, kept once and used by rules under their names. */
final class KeptController extends Controller
{
    public function __construct(
        private readonly Connection $db,
        private readonly KeptStore $kept,
        private readonly RuleShapes $shapes,
        private readonly RecordList $list,
    ) {
    }

    #[
        OA\Get(
            path: '/api/letters',
            operationId: 'letters',
            description: 'The letters that are kept under a name.',
            tags: ['kept'],
            responses: [new Ok(LetterShape::class, list: true)],
        ),
    ]
    public function letters(): JsonResponse
    {
        return new JsonResponse($this->readLetters('TRUE', []));
    }

    #[
        OA\Post(
            path: '/api/letters',
            operationId: 'keepLetter',
            description: 'Keeps a new letter under a name.',
            tags: ['kept'],
            requestBody: new Body(['recordType' => 'string', 'name' => 'string', 'subject' => 'string', 'body' => 'string']),
            responses: [new Ok(LetterShape::class, status: 201)],
        ),
    ]
    public function storeLetter(Request $request): JsonResponse
    {
        $given = $request->validate(['recordType' => 'required|string', 'name' => 'present|nullable|string', 'subject' => 'present|nullable|string', 'body' => 'present|nullable|string']);
        $id = $this->kept->keepLetter($this->type($given['recordType']), null, null, (string) $given['name'], (string) $given['subject'], (string) $given['body'], $this->person($request)->id);

        return new JsonResponse($this->letter($id), 201);
    }

    #[OA\Put(path: '/api/letters/{id}', operationId: 'changeLetter', description: 'Keeps the next version; what was sent stays as it was.', tags: ['kept'], requestBody: new Body(['version' => 'integer', 'name' => 'string', 'subject' => 'string', 'body' => 'string']), responses: [new Ok(LetterShape::class)])]
    public function updateLetter(int $id, Request $request): LetterShape
    {
        $given = $request->validate(['version' => 'required|integer', 'name' => 'present|nullable|string', 'subject' => 'present|nullable|string', 'body' => 'present|nullable|string']);
        $this->kept->keepLetter($this->type($this->letter($id)->recordType), $id, (int) $given['version'], (string) $given['name'], (string) $given['subject'], (string) $given['body'], $this->person($request)->id);

        return $this->letter($id);
    }

    #[
        OA\Delete(
            path: '/api/letters/{id}',
            operationId: 'dropLetter',
            description: 'Removes a letter no rule uses.',
            tags: ['kept'],
            responses: [new Ok],
        ),
    ]
    public function dropLetter(int $id): Response
    {
        $this->kept->dropLetter($id);

        return response()->noContent();
    }

    #[
        OA\Get(
            path: '/api/letters/{id}/versions',
            operationId: 'letterVersions',
            description: 'A kept letter as it read over time, the latest first.',
            tags: ['kept'],
            responses: [new Ok(LetterVersionShape::class, list: true)],
        ),
    ]
    public function versions(int $id): JsonResponse
    {
        $rows = $this->db->select('SELECT v.*, p.name AS who FROM letter_versions v JOIN people p ON p.id = v.by_id WHERE v.letter_id = ? ORDER BY v.number DESC', [$id]);

        return new JsonResponse(array_map(static fn (object $row): LetterVersionShape => new LetterVersionShape((int) $row->number, $row->subject, $row->body, (string) Columns::iso($row->at), $row->who), $rows));
    }

    #[
        OA\Get(
            path: '/api/named-conditions',
            operationId: 'namedConditions',
            description: 'The conditions that are kept under a name.',
            tags: ['kept'],
            responses: [new Ok(NamedShape::class, list: true)],
        ),
    ]
    public function named(): JsonResponse
    {
        return new JsonResponse($this->readNamed('TRUE', []));
    }

    #[
        OA\Post(
            path: '/api/named-conditions',
            operationId: 'keepCondition',
            description: 'Keeps a new condition under a name.',
            tags: ['kept'],
            requestBody: new Body(['recordType' => 'string', 'name' => 'string', 'file' => 'object']),
            responses: [new Ok(NamedShape::class, status: 201)],
        ),
    ]
    public function storeNamed(Request $request): JsonResponse
    {
        $given = $request->validate(['recordType' => 'required|string', 'name' => 'present|nullable|string', 'file' => 'required|array']);
        $id = $this->kept->keepCondition($this->type($given['recordType']), null, null, (string) $given['name'], $given['file']);

        return new JsonResponse($this->readNamed('n.id = ?', [$id])[0], 201);
    }

    #[
        OA\Put(
            path: '/api/named-conditions/{id}',
            operationId: 'changeCondition',
            description: 'Changes a kept condition; rules that use it go by the new one at once.',
            tags: ['kept'],
            requestBody: new Body(['version' => 'integer', 'name' => 'string', 'file' => 'object']),
            responses: [new Ok(NamedShape::class)],
        ),
    ]
    public function updateNamed(int $id, Request $request): NamedShape
    {
        $given = $request->validate(['version' => 'required|integer', 'name' => 'present|nullable|string', 'file' => 'required|array']);
        $row = $this->readNamed('n.id = ?', [$id])[0] ?? throw new Refused('not_found', 'There is no such condition.', 404);
        $this->kept->keepCondition($this->type($row->recordType), $id, (int) $given['version'], (string) $given['name'], $given['file']);

        return $this->readNamed('n.id = ?', [$id])[0];
    }

    #[
        OA\Delete(
            path: '/api/named-conditions/{id}',
            operationId: 'dropCondition',
            description: 'Removes a condition no rule uses.',
            tags: ['kept'],
            responses: [new Ok],
        ),
    ]
    public function dropNamed(int $id): Response
    {
        $this->kept->dropCondition($id);

        return response()->noContent();
    }

    private function letter(int $id): LetterShape
    {
        return $this->readLetters('l.id = ?', [$id])[0] ?? throw new Refused('not_found', 'There is no such letter.', 404);
    }

    /**
     * @param  list<int>  $bindings
     * @return list<LetterShape>
     */
    private function readLetters(string $where, array $bindings): array
    {
        $rows = $this->db->select(
            "SELECT l.*, v.subject, v.body, v.at, p.name AS who FROM letters l JOIN letter_versions v ON v.letter_id = l.id AND v.number = l.version JOIN people p ON p.id = v.by_id WHERE {$where} ORDER BY l.name",
            $bindings,
        );

        return array_map(fn (object $row): LetterShape => new LetterShape(
            (int) $row->id, $row->name, $row->record_type, (int) $row->version, $row->subject, $row->body, (string) Columns::iso($row->at), $row->who, array_values($this->kept->usersOf('letter', $row->name)),
        ), $rows);
    }

    /**
     * @param  list<int>  $bindings
     * @return list<NamedShape>
     */
    private function readNamed(string $where, array $bindings): array
    {
        return array_map(function (object $row): NamedShape {
            $type = $this->type($row->record_type);
            $file = json_decode($row->file, true, 512, JSON_THROW_ON_ERROR);
            $context = $this->kept->context($type);
            $condition = ConditionReader::read($context, new Node($file, '/onlyIf'));

            return new NamedShape(
                (int) $row->id, $row->name, $row->record_type, (int) $row->version, $file, $this->shapes->reading(new RulePage($context->sheet->rows, $context->sheet->problems, null)),
                $condition === null ? null : $this->list->count($type, $condition), array_values($this->kept->usersOf('named', $row->name)),
            );
        }, $this->db->select("SELECT * FROM named_conditions n WHERE {$where} ORDER BY n.record_type, n.name", $bindings));
    }
}
