<?php

declare(strict_types=1);

namespace App\Http\Api;

use App\Http\Api\Describe\Body;
use App\Http\Api\Describe\Ok;
use App\Http\Api\Shape\LadderShape;
use App\Store\KeptStore;
use App\Store\Refused;
use App\Store\SchemaStore;
use Illuminate\Database\Connection;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use OpenApi\Attributes as OA;
use VividLedger\Rule\Ladder\Ladders;
use VividLedger\Rule\Reading\Node;

/** Ladders, kept once and climbed by rules under their names. */
final class LadderController extends Controller
{
    public function __construct(
        private readonly Connection $db,
        private readonly KeptStore $kept,
        private readonly SchemaStore $schemas,
    ) {
    }

    #[
        OA\Get(
            path: '/api/ladders',
            operationId: 'ladders',
            description: 'The ladders that are kept under a name.',
            tags: ['time'],
            responses: [new Ok(LadderShape::class, list: true)],
        ),
    ]
    public function index(): JsonResponse
    {
        return new JsonResponse($this->read('TRUE', []));
    }

    #[
        OA\Post(
            path: '/api/ladders',
            operationId: 'keepLadder',
            description: 'Keeps a new ladder under a name.',
            tags: ['time'],
            requestBody: new Body(['name' => 'string', 'rungs' => 'objects']),
            responses: [new Ok(LadderShape::class, status: 201)],
        ),
    ]
    public function store(Request $request): JsonResponse
    {
        $given = $request->validate(['name' => 'present|nullable|string', 'rungs' => 'present|array']);

        return new JsonResponse($this->one($this->kept->keepLadder(null, null, (string) $given['name'], $given['rungs'])), 201);
    }

    #[
        OA\Put(
            path: '/api/ladders/{id}',
            operationId: 'changeLadder',
            description: 'Changes a kept ladder.',
            tags: ['time'],
            requestBody: new Body(['version' => 'integer', 'name' => 'string', 'rungs' => 'objects']),
            responses: [new Ok(LadderShape::class)],
        ),
    ]
    public function update(int $id, Request $request): LadderShape
    {
        $given = $request->validate(['version' => 'required|integer', 'name' => 'present|nullable|string', 'rungs' => 'present|array']);

        return $this->one($this->kept->keepLadder($id, (int) $given['version'], (string) $given['name'], $given['rungs']));
    }

    #[
        OA\Delete(
            path: '/api/ladders/{id}',
            operationId: 'dropLadder',
            description: 'Removes a ladder no rule uses.',
            tags: ['time'],
            responses: [new Ok],
        ),
    ]
    public function destroy(int $id): Response
    {
        $this->kept->dropLadder($id);

        return response()->noContent();
    }

    private function one(int $id): LadderShape
    {
        return $this->read('id = ?', [$id])[0] ?? throw new Refused('not_found', 'There is no such ladder.', 404);
    }

    /**
     * @param  list<int>  $bindings
     * @return list<LadderShape>
     */
    private function read(string $where, array $bindings): array
    {
        $types = array_values($this->schemas->schema()->types);

        return array_map(function (object $row) use ($types): LadderShape {
            $rungs = json_decode($row->rungs, true, 32, JSON_THROW_ON_ERROR);
            $ladder = Ladders::rungs($this->kept->context($types[0]), new Node($rungs), $row->name);

            return new LadderShape((int) $row->id, $row->name, (int) $row->version, $rungs, $ladder === null ? [] : array_map(Ladders::said(...), $ladder->rungs), array_values($this->kept->usersOf('ladder', $row->name)));
        }, $this->db->select("SELECT * FROM ladders WHERE {$where} ORDER BY name", $bindings));
    }
}
