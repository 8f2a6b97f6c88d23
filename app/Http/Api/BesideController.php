<?php

declare(strict_types=1);

namespace App\Http\Api;

use App\Http\Api\Describe\Body;
use App\Http\Api\Describe\Ok;
use App\Http\Api\Shape\BesideShape;
use App\Http\Api\Shape\EntryShape;
use App\Http\Api\Shape\FileShape;
use App\Http\Api\Shape\FollowerShape;
use App\Http\Api\Shape\GuardShape;
use App\Http\Api\Shape\RunnableShape;
use App\Store\Columns;
use App\Store\GuardStore;
use App\Store\Refused;
use App\Store\Remarks;
use App\Store\StoredFacts;
use App\Store\StoredRuleBook;
use Illuminate\Database\Connection;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use OpenApi\Attributes as OA;
use VividLedger\Schema\RecordType;

/** What stands beside a record's fields: comments, files, followers, what repeat guards have used, and rules to be run by hand. */
final class BesideController extends Controller
{
    public function __construct(
        private readonly Connection $db,
        private readonly Remarks $remarks,
        private readonly StoredRuleBook $rules,
        private readonly StoredFacts $facts,
    ) {
    }

    #[
        OA\Get(
            path: '/api/records/{type}/{id}/beside',
            operationId: 'beside',
            description: 'What stands beside the fields of a record: files, followers, used repeat guards, and rules that can be run by hand.',
            tags: ['records'],
            responses: [new Ok(BesideShape::class)],
        ),
    ]
    public function show(string $type, int $id): BesideShape
    {
        $recordType = $this->type($type);
        $files = $this->db->select('SELECT f.*, p.name AS who FROM files f LEFT JOIN people p ON p.id = f.author_id WHERE f.record_type = ? AND f.record_id = ? ORDER BY f.id DESC', [$type, $id]);
        $followers = $this->db->select('SELECT p.id, p.name FROM followers f JOIN people p ON p.id = f.person_id WHERE f.record_type = ? AND f.record_id = ? ORDER BY p.name', [$type, $id]);

        return new BesideShape(
            array_map(static fn (object $row): FileShape => new FileShape((int) $row->id, $row->name, $row->media_type, (int) $row->bytes, $row->who, (string) Columns::iso($row->at)), $files),
            array_map(static fn (object $row): FollowerShape => new FollowerShape((int) $row->id, $row->name), $followers),
            $this->guards($recordType, $id),
            $this->runnable($recordType),
        );
    }

    #[
        OA\Post(
            path: '/api/records/{type}/{id}/comments',
            operationId: 'addComment',
            description: 'Adds a comment to a record; rules that wait for one answer it.',
            tags: ['records'],
            requestBody: new Body(['text' => 'string']),
            responses: [new Ok(EntryShape::class, status: 201)],
        ),
    ]
    public function comment(string $type, int $id, Request $request, Entries $entries): JsonResponse
    {
        $given = $request->validate(['text' => 'present|nullable|string']);
        $saved = $this->remarks->comment($this->type($type), $id, (string) $given['text'], $this->actor($request));

        return new JsonResponse($entries->one((int) $saved->entryId), 201);
    }

    #[OA\Post(path: '/api/records/{type}/{id}/files', operationId: 'addFile', description: 'Multipart, the file under the name "file".', tags: ['records'], responses: [new Ok(EntryShape::class, status: 201)])]
    public function file(string $type, int $id, Request $request, Entries $entries): JsonResponse
    {
        $upload = $request->file('file');
        if (! $upload instanceof \Illuminate\Http\UploadedFile || ! $upload->isValid()) {
            $message = 'Choose a file. '.Remarks::tooLarge();
            throw new Refused('invalid_values', $message, 422, [['at' => '/file', 'code' => 'missing', 'message' => $message]]);
        }

        return new JsonResponse($entries->one((int) $this->remarks->file($this->type($type), $id, $upload, $this->actor($request))->entryId), 201);
    }

    #[OA\Get(path: '/api/files/{id}', operationId: 'file', description: 'The file itself.', tags: ['records'], responses: [new OA\Response(response: 200, description: 'The file.')])]
    public function download(int $id): Response
    {
        $file = $this->db->selectOne('SELECT f.*, c.content FROM files f JOIN file_contents c ON c.file_id = f.id WHERE f.id = ?', [$id]) ?? throw new Refused('not_found', "There is no file {$id}.", 404);
        $plain = trim((string) preg_replace('/[^A-Za-z0-9._ -]+/', '_', $file->name), ' .');

        // Always saved and never shown: what somebody put here must not run in another person's session.
        return response($file->content, 200, [
            'Content-Type' => 'application/octet-stream', 'X-Content-Type-Options' => 'nosniff',
            'Content-Disposition' => "attachment; filename=\"{$plain}\"; filename*=UTF-8''".rawurlencode($file->name),
        ]);
    }

    #[
        OA\Post(
            path: '/api/records/{type}/{id}/follow',
            operationId: 'follow',
            description: 'Follows a record, or no longer.',
            tags: ['records'],
            requestBody: new Body(['follows' => 'boolean']),
            responses: [new Ok],
        ),
    ]
    public function follow(string $type, int $id, Request $request): Response
    {
        $given = $request->validate(['follows' => 'required|boolean']);
        $this->remarks->follow($this->type($type), $id, $this->person($request)->id, (bool) $given['follows']);

        return response()->noContent();
    }

    #[OA\Post(path: '/api/records/{type}/{id}/guards/{number}', operationId: 'resetGuard', description: 'Makes the used guard of a rule ready again for this record.', tags: ['records'], requestBody: new Body(['why' => 'string']), responses: [new Ok(BesideShape::class)])]
    public function reset(string $type, int $id, int $number, Request $request, GuardStore $guards): BesideShape
    {
        $given = $request->validate(['why' => 'present|nullable|string|max:200']);
        $page = (int) $this->db->scalar('SELECT COALESCE(page, 0) FROM rules WHERE id = ?', [$number]);
        $guards->reset($number, $page, $this->type($type)->name, $id, (string) $given['why'], $this->person($request)->id);

        return $this->show($type, $id);
    }

    /** @return list<GuardShape> of the rules whose guard remembers, those that have been used */
    private function guards(RecordType $type, int $id): array
    {
        $guards = [];
        foreach ($this->db->select('SELECT DISTINCT k.rule_id, r.page, r.name, r.either_or FROM guard_keys k JOIN rules r ON r.id = k.rule_id WHERE k.record_type = ? AND k.record_id = ? ORDER BY r.position', [$type->name, $id]) as $row) {
            $rule = $this->rules->page((int) $row->rule_id, (int) $row->page, $row->either_or);
            $record = $this->facts->record($type->name, $id);
            if ($rule === null || $record === null || ! $rule->guard->remembers()) {
                continue;
            }
            $state = GuardStore::state($this->db, $rule->id, $type->name, $id);
            $held = $rule->guard->holdsBack($state, $record, $this->facts->now(), fn (string $key): bool => $this->facts->guardHeld($rule->id, $type->name, $id, $state->epoch, $key));
            $guards[] = new GuardShape($rule->id, $row->name, $rule->guard->wording(), $state->count, $state->last === null ? null : $state->last->format('Y-m-d\TH:i:s\Z'), $held);
        }

        return $guards;
    }

    /** @return list<RunnableShape> */
    private function runnable(RecordType $type): array
    {
        $rows = $this->db->select("SELECT r.id, r.name FROM rules r JOIN rule_watches w ON w.rule_id = r.id AND w.watch = '!by_hand' WHERE r.record_type = ? AND r.status = 'in_force' ORDER BY r.position", [$type->name]);

        return array_map(static fn (object $row): RunnableShape => new RunnableShape((int) $row->id, $row->name, ''), $rows);
    }
}
