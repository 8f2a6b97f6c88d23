<?php

declare(strict_types=1);

namespace App\Http\Outbound;

use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Models\Columns;
use App\Models\Outbound\NoticeKind;
use App\Models\People\Person;
use App\Store\Access\SeenTexts;
use App\Store\HouseClock;
use App\Store\Outbound\Notice;
use App\Store\Outbound\Notices;
use App\Store\Types\SchemaStore;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use OpenApi\Attributes as OA;
use VividLedger\Record\Value;

/** The bell: what happened for somebody, and by which other ways they want to hear of it. */
final class NoticeController extends Controller
{
    public const MOST = 30;

    public function __construct(private readonly SchemaStore $schemas, private readonly HouseClock $clock,
        private readonly SeenTexts $texts)
    {
    }

    #[
        OA\Get(
            path: '/api/notices',
            operationId: 'notices',
            description: 'Notes of rules, tasks that were given, and comments that name whoever asks. The newest first.',
            tags: ['messages'],
            responses: [new Ok(NoticesResource::class)],
        ),
    ]
    public function index(Request $request): NoticesResource
    {
        $me = $this->person($request);
        $resources = array_map(
            fn (Notice $notice): NoticeResource => $this->resource($notice, $me->notices_seen_at),
            Notices::of($me->id, $this->texts, self::MOST),
        );

        return new NoticesResource(count(array_filter($resources, static fn (NoticeResource $one): bool => $one->isNew)), $resources);
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
    public function seen(Request $request): Response
    {
        Person::query()->whereKey($this->person($request)->id)->update(['notices_seen_at' => Columns::moment($this->clock->now())]);

        return response()->noContent();
    }

    #[
        OA\Get(
            path: '/api/notices/ways',
            operationId: 'noticeWays',
            description: 'By which ways whoever asks hears of what happens for them.',
            tags: ['messages'],
            responses: [new Ok(NoticeWayResource::class, list: true)],
        ),
    ]
    public function ways(Request $request): JsonResponse
    {
        $me = $this->person($request);

        return new JsonResponse(array_map(
            static fn (NoticeKind $kind): NoticeWayResource => new NoticeWayResource(
                $kind->value, $kind->label(), $me->hearsOf($kind)->value,
            ),
            NoticeKind::cases(),
        ));
    }

    #[
        OA\Put(
            path: '/api/notices/ways',
            operationId: 'chooseNoticeWays',
            description: 'Chooses ways, from now on; what is left out stays as it is.',
            tags: ['messages'],
            responses: [new Ok(NoticeWayResource::class, list: true)],
        ),
    ]
    public function choose(NoticeWaysInput $request): JsonResponse
    {
        $me = $this->person($request);
        $now = $this->clock->now();
        $me->update([
            'notice_ways' => $request->validated() + ($me->notice_ways ?? []), 'notices_since' => $now, 'notices_sent_until' => $now,
            'morning_sent_at' => $now,
        ]);

        return $this->ways($request);
    }

    private function resource(Notice $notice, ?\DateTimeImmutable $seen): NoticeResource
    {
        $number = $notice->recordId === 0 ? '' : ($this->schemas->schema()->type($notice->recordType)?->numberOf($notice->recordId) ?? '');

        return new NoticeResource(
            kind: $notice->kind->value, at: Value::instantText($notice->at), title: $notice->title, recordType: $notice->recordType,
            recordId: $notice->recordId, recordNumber: $number, isNew: $seen === null || $notice->at > $seen,
        );
    }
}
