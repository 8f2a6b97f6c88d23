<?php

declare(strict_types=1);

namespace App\Http\Api;

use App\Http\Api\Describe\Body;
use App\Http\Api\Describe\Ok;
use App\Http\Api\Shape\RunResultShape;
use App\Http\Api\Shape\RunShape;
use App\Store\Columns;
use App\Store\PeopleStore;
use App\Store\Refused;
use App\Store\RunStore;
use Illuminate\Database\Connection;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use OpenApi\Attributes as OA;

/** Rules run by hand, on one record or on a selection. */
final class RunController extends Controller
{
    private const RESULTS = 500;

    public function __construct(
        private readonly Connection $db,
        private readonly RunStore $runs,
        private readonly PeopleStore $names,
    ) {
    }

    #[OA\Post(path: '/api/rules/{id}/run', operationId: 'runRule', description: 'Runs a rule by hand. On one record the answer is there at once; a selection is worked through in the background.', tags: ['runs'], requestBody: new Body(['recordType' => 'string', 'records' => 'integers']), responses: [new Ok(RunShape::class, status: 201)])]
    public function store(int $id, Request $request): JsonResponse
    {
        $given = $request->validate(['recordType' => 'required|string', 'records' => 'required|array', 'records.*' => 'integer|min:1']);
        $run = $this->runs->start($id, $this->type($given['recordType']), array_map(intval(...), $given['records']), $this->person($request)->id);
        if (count($given['records']) === 1) {
            $this->runs->finish($run);
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
        $run = $this->db->selectOne('SELECT u.*, r.name AS rule_name, p.name AS who FROM runs u JOIN rules r ON r.id = u.rule_id JOIN people p ON p.id = u.by_id WHERE u.id = ?', [$id])
            ?? throw new Refused('not_found', "There is no run {$id}.", 404);
        $type = $this->type($run->record_type);
        $rows = $this->db->select('SELECT * FROM run_records WHERE run_id = ? ORDER BY record_id LIMIT '.self::RESULTS, [$id]);
        $this->names->rememberTitles($type->name, array_map(static fn (object $row): int => (int) $row->record_id, $rows));
        $results = array_map(fn (object $row): RunResultShape => new RunResultShape(
            (int) $row->record_id, $type->numberOf((int) $row->record_id), $this->names->title($type->name, (int) $row->record_id) ?? '', $row->result, $row->said, $row->entry_id === null ? null : (int) $row->entry_id,
        ), $rows);

        return new RunShape((int) $run->id, (int) $run->rule_id, $run->rule_name, $run->record_type, $run->who, (string) Columns::iso($run->at), $run->status, (int) $run->total, (int) $run->done, (int) $run->fired, $results);
    }
}
