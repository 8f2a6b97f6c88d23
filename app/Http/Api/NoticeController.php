<?php

declare(strict_types=1);

namespace App\Http\Api;

use App\Http\Api\Describe\Ok;
use App\Http\Api\Shape\NoticeShape;
use App\Http\Api\Shape\NoticesShape;
use App\Models\Columns;
use App\Models\Person;
use App\Models\StoredMessage;
use App\Models\Task;
use App\Store\HouseClock;
use App\Store\SchemaStore;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use OpenApi\Attributes as OA;
use VividLedger\Message\Channel;
use VividLedger\Record\Value;

/** The bell: notes that rules wrote to somebody, and tasks that they were given. */
final class NoticeController extends Controller
{
    private const MOST = 30;

    public function __construct(private readonly SchemaStore $schemas)
    {
    }

    #[
        OA\Get(
            path: '/api/notices',
            operationId: 'notices',
            description: 'What happened for whoever asks: notes in the application, and tasks that were given. The newest first.',
            tags: ['messages'],
            responses: [new Ok(NoticesShape::class)],
        ),
    ]
    public function index(Request $request): NoticesShape
    {
        $me = $this->person($request);
        $seen = $me->notices_seen_at;
        $found = [];
        $notes = StoredMessage::query()->where('channel', Channel::App)->where('person_id', $me->id)->latest('id')->limit(self::MOST)
            ->get(['subject', 'created_at', 'record_type', 'record_id']);
        foreach ($notes as $note) {
            $found[] = $this->notice('note', $note->created_at, $note->subject, $note->record_type, $note->record_id, $seen);
        }
        $tasks = Task::query()->where('assignee_id', $me->id)->latest('given_at')->limit(self::MOST)
            ->get(['title', 'given_at', 'record_type', 'record_id']);
        foreach ($tasks as $task) {
            $found[] = $this->notice('task', $task->given_at, $task->title, $task->record_type, $task->record_id, $seen);
        }
        usort($found, static fn (NoticeShape $one, NoticeShape $other): int => $other->at <=> $one->at);
        $found = array_slice($found, 0, self::MOST);

        return new NoticesShape(count(array_filter($found, static fn (NoticeShape $one): bool => $one->isNew)), $found);
    }

    #[
        OA\Post(
            path: '/api/notices/seen',
            operationId: 'seeNotices',
            description: 'Whoever asks has seen what the bell told them so far.',
            tags: ['messages'],
            responses: [new Ok],
        ),
    ]
    public function seen(Request $request, HouseClock $clock): Response
    {
        Person::query()->whereKey($this->person($request)->id)->update(['notices_seen_at' => Columns::moment($clock->now())]);

        return response()->noContent();
    }

    private function notice(
        string $kind, \DateTimeImmutable $at, string $title, ?string $type, ?int $record, ?\DateTimeImmutable $seen,
    ): NoticeShape {
        $number = $type === null || $record === null ? '' : ($this->schemas->schema()->type($type)?->numberOf($record) ?? '');

        return new NoticeShape($kind, Value::instantText($at), $title, $type, $record, $number, $seen === null || $at > $seen);
    }
}
