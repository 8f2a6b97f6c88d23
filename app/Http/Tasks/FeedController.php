<?php

declare(strict_types=1);

namespace App\Http\Tasks;

use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Models\Columns;
use App\Models\Ledger\Entry;
use App\Models\People\Person;
use App\Models\Tasks\Task;
use App\Store\Access\AccessScope;
use App\Store\Access\SeenTexts;
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
            responses: [new Ok(FeedResource::class, status: 201)],
        ),
    ]
    public function store(Request $request): JsonResponse
    {
        $secret = bin2hex(random_bytes(24));
        $person = $this->person($request);
        $person->forceFill(['feed' => hash('sha256', $secret)])->save();

        return new JsonResponse(new FeedResource(url("/feed/{$secret}.ics")), 201);
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

    public function show(string $secret, Request $request, AccessScope $inSight): Response
    {
        $person = Person::query()->where('feed', hash('sha256', $secret))->where('active', true)->first();
        if ($person === null) {
            return response('There is no such calendar.', 404);
        }
        $calendar = new VCalendar(['PRODID' => '-//Vivid Ledger//Tasks//EN', 'X-WR-CALNAME' => "Tasks of {$person->name}"]);
        $host = parse_url((string) config('app.url'), PHP_URL_HOST);
        $tasks = Task::query()->open()->where('assignee_id',
            $person->id)->whereNotNull('due_at')->orderBy('due_at')->limit(self::MOST)->get();
        $texts = new SeenTexts($inSight->of($person));
        $changed = Entry::rows()->whereIn('task_id', $tasks->modelKeys())->groupBy('task_id')->selectRaw('task_id, MAX(at) AS at')
            ->pluck('at', 'task_id');
        foreach ($tasks as $task) {
            $due = $task->due_at ?? $task->given_at;
            $common = [
                // When it was last revised (RFC 5545 §3.8.7.2), so that what is as it was looks so.
                'DTSTAMP' => isset($changed[$task->id]) ? new \DateTimeImmutable((string) Columns::iso((string) $changed[$task->id]))
                    : $task->given_at,
                'SUMMARY' => $texts->shown($task->title, $task->tells),
                'URL' => url("/records/{$task->record_type}/{$task->record_id}"),
            ];
            $calendar->add('VTODO', $common + [
                'UID' => "task-{$task->id}@{$host}", 'DUE' => $due, 'DESCRIPTION' => $texts->shown($task->notes, $task->tells),
                'PRIORITY' => match ($task->priority) {
                    'high' => 1, 'low' => 9, default => 5
                },
            ]);
            // Many calendars show no to-dos, so each stands there as an event of its last half hour too.
            $calendar->add('VEVENT', $common + [
                'UID' => "due-{$task->id}@{$host}", 'DTSTART' => $due->modify('-30 minutes'), 'DTEND' => $due, 'TRANSP' => 'TRANSPARENT',
            ]);
        }
        $answer = response($calendar->serialize(), 200, [
            'Content-Type' => 'text/calendar; charset=utf-8', 'Cache-Control' => 'private, no-cache', 'X-Robots-Tag' => 'noindex',
        ]);
        // Calendar programs look every few minutes, and mostly nothing has changed.
        $answer->setEtag(hash('xxh128', (string) $answer->getContent()));
        $answer->isNotModified($request);

        return $answer;
    }
}
