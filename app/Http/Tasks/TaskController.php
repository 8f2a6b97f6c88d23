<?php

declare(strict_types=1);

namespace App\Http\Tasks;

use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Http\Setup\WorkingWeekResource;
use App\Models\Tasks\Task;
use App\Models\Tasks\TaskStatus;
use App\Store\Access\RecordAuthorizer;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\Library\CalendarStore;
use App\Store\People\PeopleStore;
use App\Store\Tasks\TaskStore;
use Illuminate\Database\Connection;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use OpenApi\Attributes as OA;
use VividLedger\Rights\Act;
use VividLedger\Time\WorkingWeek;
use VividLedger\Words\Words;

/** Tasks that rules have given. */
final class TaskController extends Controller
{
    public function __construct(
        private readonly Tasks $tasks,
        private readonly TaskStore $store,
        private readonly CalendarStore $calendars,
        private readonly PeopleStore $people,
        private readonly HouseClock $clock,
    ) {
    }

    #[OA\Get(path: '/api/tasks', operationId: 'tasks', description: 'Open tasks by due date, those without one last; done ones the latest '
        .'first. With "before" or "after", in the order of their ids instead, so that all of them can be '
            .'read.', tags: ['tasks'], responses: [new Ok(TaskPage::class)])]
    public function index(TaskListInput $request): TaskPage
    {
        $given = $request->validated();
        $me = $this->person($request)->id;
        $person = isset($given['assignee']) ? $this->personGiven(
            $given['assignee'],
            '/assignee',
        ) : match ($given['whose'] ?? 'mine') {
            'mine' => $me,
            'team' => $this->person($request)->team,
            default => null,
        };
        $asked = $given['status'] ?? 'open';
        $status = $asked === 'all' ? null : TaskStatus::from($asked);
        $limit = (int) ($given['limit'] ?? 100);
        $inOrder = $status === null || isset($given['before']) || isset($given['after']);

        return new TaskPage(
            $inOrder ? $this->tasks->inOrder(
                $status,
                $person,
                self::number($given, 'before'),
                self::number($given, 'after'),
                $limit,
            ) : $this->tasks->listed($status, $person, $limit),
            $this->tasks->count($status, $person), $this->tasks->count(TaskStatus::Open, $me),
            WorkingWeekResource::of(WorkingWeek::at($this->clock->now(), $this->calendars->calendar($this->people->person($me)))),
        );
    }

    #[
        OA\Post(
            path: '/api/tasks',
            operationId: 'giveTask',
            description: 'Gives a task about a record, to oneself or to somebody else.',
            tags: ['tasks'],
            responses: [new Ok(TaskResource::class, status: 201)],
        ),
    ]
    public function store(NewTaskInput $request, RecordAuthorizer $gate): JsonResponse
    {
        $given = $request->validated();
        [$type, $me] = [$this->type($given['recordType']), $this->person($request)];
        $gate->mustMay(Act::Read, $type, (int) $given['recordId']);
        $id = $this->store->give($type, (int) $given['recordId'], [
            'title' => trim($given['title']), 'notes' => trim((string) ($given['notes'] ?? '')), 'priority' => $given['priority']
                ?? 'normal',
            'due' => isset($given['dueAt']) ? new \DateTimeImmutable($given['dueAt']) : null,
            'assignee' => isset($given['assigneeId']) ? $this->personGiven($given['assigneeId'], '/assigneeId') : $me->id,
        ], $me->id);

        return new JsonResponse($this->tasks->one($id) ?? ['id' => $id], 201);
    }

    #[
        OA\Get(
            path: '/api/tasks/{id}',
            operationId: 'task',
            description: 'One task.',
            tags: ['tasks'],
            responses: [new Ok(TaskResource::class)],
        ),
    ]
    public function show(int $id): TaskResource
    {
        return $this->task($id);
    }

    #[
        OA\Get(
            path: '/api/records/{type}/{id}/tasks',
            operationId: 'recordTasks',
            description: 'The tasks about a record, open ones first.',
            tags: ['tasks'],
            responses: [new Ok(TaskResource::class, list: true)],
        ),
    ]
    public function ofRecord(string $type, int $id): JsonResponse
    {
        return new JsonResponse($this->tasks->ofRecord($this->type($type)->name, $id, 500));
    }

    #[
        OA\Post(
            path: '/api/tasks/{id}/complete',
            operationId: 'completeTask',
            description: 'Completes a task, with what came of it; rules that wait for it go on.',
            tags: ['tasks'],
            responses: [new Ok(TaskResource::class)],
        ),
    ]
    public function complete(int $id, OutcomeInput $request): TaskResource
    {
        $this->mayDo($id);
        $this->store->complete($id, $this->person($request)->id, trim((string) ($request->validated()['outcome'] ?? '')));

        return $this->task($id);
    }

    #[
        OA\Post(
            path: '/api/tasks/{id}/reopen',
            operationId: 'reopenTask',
            description: 'Opens a task again.',
            tags: ['tasks'],
            responses: [new Ok(TaskResource::class)],
        ),
    ]
    public function reopen(int $id, Request $request): TaskResource
    {
        $this->mayDo($id);
        $this->store->reopen($id, $this->person($request)->id);

        return $this->task($id);
    }

    #[
        OA\Patch(
            path: '/api/tasks',
            operationId: 'changeTasks',
            description: 'Gives tasks another date or to another person, or completes them; all of them, or none.',
            tags: ['tasks'],
            responses: [new Ok(TaskResource::class, list: true)],
        ),
    ]
    public function change(TasksInput $request, Connection $db): JsonResponse
    {
        $given = $request->validated();
        $by = $this->person($request)->id;
        $set = [];
        if (array_key_exists('dueAt', $given)) {
            $set['due'] = $given['dueAt'] === null ? null : new \DateTimeImmutable($given['dueAt']);
        }
        if (isset($given['assigneeId'])) {
            $set['assignee'] = $this->personGiven($given['assigneeId'], '/assigneeId');
        }
        $db->transaction(function () use ($given, $set, $by): void {
            // In one order everywhere, so that two who change the same tasks wait for each other and never both.
            sort($given['ids']);
            foreach ($given['ids'] as $id) {
                $this->mayDo((int) $id);
                if ($set !== []) {
                    $this->store->change((int) $id, $set, $by);
                }
                if (($given['complete'] ?? false) === true) {
                    $this->store->complete((int) $id, $by);
                }
            }
        });

        return new JsonResponse(array_map(fn (mixed $id): TaskResource => $this->task((int) $id), $given['ids']));
    }

    private function mayDo(int $id): void
    {
        $this->authorize(
            'complete',
            Task::query()->where($this->tasks->seen(...))->find($id)
                ?? throw DomainError::missing(Words::say('There is no task {id}.', id: $id)),
        );
    }

    private function task(int $id): TaskResource
    {
        return $this->tasks->one($id) ?? throw DomainError::missing(Words::say('There is no task {id}.', id: $id));
    }
}
