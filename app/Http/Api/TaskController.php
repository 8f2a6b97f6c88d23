<?php

declare(strict_types=1);

namespace App\Http\Api;

use App\Http\Api\Describe\Body;
use App\Http\Api\Describe\Ok;
use App\Http\Api\Describe\Query;
use App\Http\Api\Shape\TaskPage;
use App\Http\Api\Shape\TaskShape;
use App\Store\Refused;
use App\Store\TaskStore;
use Illuminate\Database\Connection;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use OpenApi\Attributes as OA;

/** Tasks that rules have given. */
final class TaskController extends Controller
{
    public function __construct(
        private readonly Tasks $tasks,
        private readonly TaskStore $store,
    ) {
    }

    #[OA\Get(path: '/api/tasks', operationId: 'tasks', tags: ['tasks'], parameters: [
        new Query('whose', 'string', '', ['mine', 'all']), new Query('status', 'string', '', ['open', 'done']), new Query('limit', 'integer'),
    ], responses: [new Ok(TaskPage::class)])]
    public function index(Request $request): TaskPage
    {
        $given = $request->validate(['whose' => 'nullable|in:mine,all', 'status' => 'nullable|in:open,done', 'limit' => 'nullable|integer|min:1|max:500']);
        $me = $this->person($request)->id;
        $status = $given['status'] ?? 'open';
        $person = ($given['whose'] ?? 'mine') === 'mine' ? $me : null;

        return new TaskPage($this->tasks->listed($status, $person, (int) ($given['limit'] ?? 100)), $this->tasks->count($status, $person), $this->tasks->count('open', $me));
    }

    #[OA\Post(path: '/api/tasks/{id}/complete', operationId: 'completeTask', tags: ['tasks'], responses: [new Ok(TaskShape::class)])]
    public function complete(int $id, Request $request): TaskShape
    {
        $this->mayDo($id, $request);
        $this->store->complete($id, $this->person($request)->id);

        return $this->task($id);
    }

    #[OA\Post(path: '/api/tasks/{id}/reopen', operationId: 'reopenTask', tags: ['tasks'], responses: [new Ok(TaskShape::class)])]
    public function reopen(int $id, Request $request): TaskShape
    {
        $this->mayDo($id, $request);
        $this->store->reopen($id, $this->person($request)->id);

        return $this->task($id);
    }

    #[OA\Patch(path: '/api/tasks', operationId: 'changeTasks', description: 'Gives tasks another date or to another person, or completes them; all of them, or none.', tags: ['tasks'], requestBody: new Body(['ids' => 'integers', 'dueAt?' => 'string', 'assigneeId?' => 'integer', 'complete?' => 'boolean']), responses: [new Ok(TaskShape::class, list: true)])]
    public function change(Request $request, Connection $db): JsonResponse
    {
        $given = $request->validate(['ids' => 'required|array|max:500', 'ids.*' => 'integer', 'dueAt' => 'sometimes|nullable|date', 'assigneeId' => 'nullable|integer|exists:people,id', 'complete' => 'nullable|boolean']);
        $by = $this->person($request)->id;
        $set = (array_key_exists('dueAt', $given) ? ['due' => $given['dueAt'] === null ? null : new \DateTimeImmutable($given['dueAt'])] : []) + (isset($given['assigneeId']) ? ['assignee' => (int) $given['assigneeId']] : []);
        $db->transaction(function () use ($given, $set, $by, $request): void {
            foreach ($given['ids'] as $id) {
                $this->mayDo((int) $id, $request);
                if ($set !== []) {
                    $this->store->change((int) $id, $set, $by);
                }
                if (($given['complete'] ?? false) === true) {
                    $this->store->complete((int) $id, $by);
                }
            }
        });

        return new JsonResponse(array_map(fn (mixed $id): TaskShape => $this->task((int) $id), $given['ids']));
    }

    private function mayDo(int $id, Request $request): void
    {
        $person = $this->person($request);
        $task = $this->task($id);
        if ($task->assigneeId !== $person->id && ! $person->role->mayDoAllTasks()) {
            throw new Refused('not_allowed', 'This task is '.($task->assignee ?? 'nobody').'’s. You can complete your own.', 403);
        }
    }

    private function task(int $id): TaskShape
    {
        return $this->tasks->one($id) ?? throw new Refused('not_found', "There is no task {$id}.", 404);
    }
}
