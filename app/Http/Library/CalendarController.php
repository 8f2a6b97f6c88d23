<?php

declare(strict_types=1);

namespace App\Http\Library;

use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\Library\CalendarKeep;
use App\Store\Library\Holidays;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;
use OpenApi\Attributes as OA;
use VividLedger\Words\Words;

/** Working calendars: hours, holidays, zone, and who goes by which. */
final class CalendarController extends Controller
{
    public function __construct(
        private readonly CalendarKeep $keep,
        private readonly CalendarResources $resources,
    ) {
    }

    #[
        OA\Get(
            path: '/api/calendars',
            operationId: 'calendars',
            description: 'The working calendars, and who goes by which.',
            tags: ['time'],
            responses: [new Ok(CalendarResource::class, list: true)],
        ),
    ]
    public function index(): JsonResponse
    {
        return new JsonResponse($this->resources->all());
    }

    #[
        OA\Post(
            path: '/api/calendars',
            operationId: 'keepCalendar',
            description: 'Makes a working calendar.',
            tags: ['time'],
            responses: [new Ok(CalendarResource::class, status: 201)],
        ),
    ]
    public function store(CalendarInput $request): JsonResponse
    {
        return new JsonResponse($this->one($this->kept(null, $request)), 201);
    }

    #[
        OA\Put(
            path: '/api/calendars/{id}',
            operationId: 'changeCalendar',
            description: 'Changes a working calendar; pencilled lines that count its days move with it.',
            tags: ['time'],
            responses: [new Ok(CalendarResource::class)],
        ),
    ]
    public function update(int $id, CalendarInput $request): CalendarResource
    {
        return $this->one($this->kept($id, $request));
    }

    #[
        OA\Delete(
            path: '/api/calendars/{id}',
            operationId: 'dropCalendar',
            description: 'Removes a working calendar nobody goes by.',
            tags: ['time'],
            responses: [new Ok],
        ),
    ]
    public function destroy(int $id): Response
    {
        $this->keep->drop($id);

        return response()->noContent();
    }

    #[
        OA\Post(
            path: '/api/calendars/holidays',
            operationId: 'readHolidays',
            description: 'Reads the days of an iCalendar file, without keeping them.',
            tags: ['time'],
            responses: [new Ok(HolidaysResource::class)],
        ),
    ]
    public function holidays(HolidayFileInput $request, HouseClock $clock): HolidaysResource
    {
        $given = $request->validated();

        return new HolidaysResource(...Holidays::of($given['text'], $clock->now()));
    }

    private function kept(?int $id, CalendarInput $request): int
    {
        $given = $request->validated();

        $people = [];
        foreach (array_values($given['people']) as $place => $one) {
            $people[] = $this->personGiven($one, "/people/{$place}");
        }

        return $this->keep->keep(
            $id,
            isset($given['version']) ? (int) $given['version'] : null,
            (string) $given['name'],
            $given['timeZone'],
            $given['hours'],
            $given['holidays'],
            (bool) $given['company'],
            $given['teams'],
            $people,
        );
    }

    private function one(int $id): CalendarResource
    {
        return $this->resources->all($id)[0] ?? throw DomainError::missing(Words::say('There is no such calendar.'));
    }
}
