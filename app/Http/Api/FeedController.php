<?php

declare(strict_types=1);

namespace App\Http\Api;

use App\Http\Api\Describe\Ok;
use App\Http\Api\Shape\FeedShape;
use App\Models\Person;
use App\Models\Task;
use App\Store\Access\InSight;
use App\Store\Access\SeenTexts;
use App\Store\HouseClock;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use OpenApi\Attributes as OA;
use Sabre\VObject\Component\VCalendar;

/** A person's open tasks as a calendar (RFC 5545), at an address that is a secret and can be revoked. */
final class FeedController extends Controller
{
    private const MOST = 1000;

    #[
        OA\Post(
            path: '/api/feed',
            operationId: 'makeFeed',
            description: 'Makes a new secret address for one’s own tasks; an earlier one is no longer good.',
            tags: ['time'],
            responses: [new Ok(FeedShape::class, status: 201)],
        ),
    ]
    public function store(Request $request): JsonResponse
    {
        $secret = bin2hex(random_bytes(24));
        $person = $this->person($request);
        $person->forceFill(['feed' => hash('sha256', $secret)])->save();

        return new JsonResponse(new FeedShape(url("/feed/{$secret}.ics")), 201);
    }

    #[
        OA\Delete(
            path: '/api/feed',
            operationId: 'revokeFeed',
            description: 'Makes the secret address of one’s tasks no longer good.',
            tags: ['time'],
            responses: [new Ok],
        ),
    ]
    public function destroy(Request $request): Response
    {
        $this->person($request)->forceFill(['feed' => null])->save();

        return response()->noContent();
    }

    public function show(string $secret, HouseClock $clock, InSight $inSight): Response
    {
        $person = Person::query()->where('feed', hash('sha256', $secret))->where('active', true)->first();
        if ($person === null) {
            return response('There is no such calendar.', 404);
        }
        $calendar = new VCalendar(['PRODID' => '-//Vivid Ledger//Tasks//EN', 'X-WR-CALNAME' => "Tasks of {$person->name}"]);
        $host = parse_url((string) config('app.url'), PHP_URL_HOST);
        $tasks = Task::query()->open()->where('assignee_id', $person->id)->whereNotNull('due_at')->orderBy('due_at')->limit(self::MOST);
        $texts = new SeenTexts($inSight->of($person));
        foreach ($tasks->get() as $task) {
            $due = $task->due_at ?? $clock->now();
            $common = [
                'DTSTAMP' => $clock->now(), 'SUMMARY' => $texts->shown($task->title, $task->tells),
                'URL' => url("/records/{$task->record_type}/{$task->record_id}"),
            ];
            $calendar->add('VTODO', ['UID' => "task-{$task->id}@{$host}", 'DUE' => $due,
                'DESCRIPTION' => $texts->shown($task->notes, $task->tells)] + $common + [
                    'PRIORITY' => match ($task->priority) {
                        'high' => 1, 'low' => 9, default => 5
                    },
                ]);
            // Many calendars show no to-dos, so each stands there as an event of its last half hour too.
            $calendar->add('VEVENT', $common + [
                'UID' => "due-{$task->id}@{$host}", 'DTSTART' => $due->modify('-30 minutes'), 'DTEND' => $due, 'TRANSP' => 'TRANSPARENT',
            ]);
        }

        return response($calendar->serialize(), 200, [
            'Content-Type' => 'text/calendar; charset=utf-8', 'Cache-Control' => 'private, no-store', 'X-Robots-Tag' => 'noindex',
        ]);
    }
}
