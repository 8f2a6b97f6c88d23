<?php

declare(strict_types=1);

namespace App\Http\Timing;

use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Http\Ledger\Entries;
use App\Models\Slips\TurnStatus;
use App\Models\Timing\ClockTurn;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\RefusedFor;
use App\Store\Setup\Company;
use App\Work\Timing\ClockTurner;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use OpenApi\Attributes as OA;
use VividLedger\Record\Value;
use VividLedger\Rights\Duty;
use VividLedger\Words\Words;

/** The house clock. In the demo it can be turned forward; what falls due in between really happens. */
final class ClockController extends Controller
{
    private const SHOWN = 60;

    public function __construct(
        private readonly HouseClock $clock,
        private readonly ClockTurner $turner,
        private readonly Company $company,
        private readonly Entries $entries,
    ) {
    }

    #[
        OA\Get(
            path: '/api/clock',
            operationId: 'clock',
            description: 'The house clock, and how far a turn of it has come.',
            tags: ['time'],
            responses: [new Ok(ClockResource::class)],
        ),
    ]
    public function show(Request $request): ClockResource
    {
        $turn = ClockTurn::query()->latest('id')->first();
        $next = $this->turner->nextDue();

        return new ClockResource(
            Value::instantText($this->clock->now()), $this->company->zone()->getName(), config('ledger.clock_may_turn') === true
                && $this->person($request)->may(Duty::KeepHouse),
            $next === null ? null : Value::instantText($next),
            $turn === null ? null : new TurnResource(
                id: $turn->id, from: Value::instantText($turn->from_at), to: Value::instantText($turn->to_at),
                reached: Value::instantText($turn->reached_at), turning: $turn->status === TurnStatus::Turning, done: $turn->done,
                entries: $this->entries->during($turn, self::SHOWN),
            ),
        );
    }

    #[
        OA\Post(
            path: '/api/clock/turn',
            operationId: 'turnClock',
            description: 'Begins to turn the clock forward: by an hour, a day or a week, to the next pencilled line, or to a moment.',
            tags: ['time'],
            responses: [new Ok(ClockResource::class, status: 202)],
        ),
    ]
    public function turn(ClockTurnInput $request): JsonResponse
    {
        $given = $request->validated();
        $now = $this->clock->now();
        $to = match ($given['by'] ?? null) {
            'hour' => $now->modify('+1 hour'),
            'day' => $now->setTimezone($this->company->zone())->modify('+1 day'),
            'week' => $now->setTimezone($this->company->zone())->modify('+7 days'),
            'next' => $this->turner->nextDue() ?? throw new DomainError(
                'nothing_due',
                Words::say('Nothing is pencilled in.'),
                RefusedFor::Conflict,
            ),
            default => new \DateTimeImmutable((string) $given['to']),
        };
        $this->turner->begin($to, $this->person($request)->id);

        return new JsonResponse($this->show($request), 202);
    }
}
