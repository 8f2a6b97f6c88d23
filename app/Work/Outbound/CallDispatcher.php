<?php

declare(strict_types=1);

namespace App\Work\Outbound;

use App\Models\Columns;
use App\Models\Outbound\CallStatus;
use App\Models\Outbound\Endpoint;
use App\Models\Outbound\StoredCall;
use App\Store\Outbound\CallRepository;
use App\Store\Sql\Lease;
use App\Store\Sql\LeaseHolder;
use Illuminate\Database\Connection;
use Illuminate\Database\Eloquent\Builder;

/**
 * Makes the calls that wait: each is leased by itself, made under one key however often, and ended once. An endpoint takes so many at a
 * time and a minute; one that keeps failing rests for a while. What cannot be helped by trying again is set aside, to be mended and sent.
 */
final class CallDispatcher
{
    /** So many failures in a row, and an endpoint rests. */
    private const FAILURES = 5;

    private const LONGEST_REST = 900;

    /** So many calls are under way at a time. */
    private const AT_ONCE = 8;

    /** And so many of them with one endpoint: a slow one leaves room for others. */
    private const OF_ONE = 4;

    private readonly LeaseHolder $holder;

    /** @var array<string, int> calls under way, by endpoint */
    private array $underWay = [];

    /** @var array<string, int> when each endpoint had its last turn */
    private array $served = [];

    private int $turn = 0;

    private int $ended = 0;

    private ?\Throwable $broken = null;

    public function __construct(
        private readonly Connection $db,
        private readonly CallRepository $keeper,
        private readonly EndpointCall $calls,
    ) {
        $this->holder = new LeaseHolder;
    }

    /**
     * @param  float  $seconds  after so long none is begun any more
     * @return int how many calls were tried; none means that nothing is due
     */
    public function work(int $most, float $seconds = 60.0): int
    {
        [$done, $end] = [0, microtime(true) + $seconds];
        do {
            // As soon as one has ended there is room for the next.
            while ($done < $most && $this->broken === null && microtime(true) < $end && array_sum($this->underWay) < self::AT_ONCE) {
                $leased = $this->lease();
                if ($leased === null) {
                    break;
                }
                $this->begin(...$leased);
                $done++;
            }
            $ended = $this->ended;
            while (array_sum($this->underWay) > 0 && $this->ended === $ended) {
                $this->calls->goOn();
            }
        } while ($this->ended > $ended);
        if ($this->broken !== null) {
            // Those that were under way beside it have come to their end.
            [$broken, $this->broken] = [$this->broken, null];
            throw $broken;
        }

        return $done;
    }

    private function begin(StoredCall $call, Endpoint $endpoint): void
    {
        $this->underWay[$endpoint->name] = ($this->underWay[$endpoint->name] ?? 0) + 1;
        $this->calls->start($call, $endpoint)
            ->then(function (Answered $answered) use ($call, $endpoint): void {
                $this->answered($call, $endpoint, $answered);
            })
            ->then(null, function (\Throwable $broken): void {
                $this->broken ??= $broken;
            })
            ->then(function () use ($endpoint): void {
                $this->underWay[$endpoint->name]--;
                $this->ended++;
            });
    }

    /**
     * Sends one again that had been given up, as it is or with its payload mended.
     *
     * @param  ?array<array-key, mixed>  $payload
     */
    public function again(int $id, ?array $payload = null): bool
    {
        $now = gmdate('Y-m-d H:i:s');
        $free = ['status' => CallStatus::Waiting, 'tries' => 0, 'next_try_at' => $now, 'ended_at' => null] + LeaseHolder::FREE;
        $isAgain = StoredCall::query()->whereKey($id)->where('status', CallStatus::Failed)
            ->update($free + ($payload === null ? [] : ['payload' => json_encode($payload, JSON_THROW_ON_ERROR)])) === 1;
        if ($isAgain) {
            MakeCalls::dispatch();
        }

        return $isAgain;
    }

    /** @return ?array{StoredCall, Endpoint} the next call that is due and that its endpoint has room for; endpoints come by turns */
    private function lease(): ?array
    {
        $now = gmdate('Y-m-d H:i:s');
        $due = static fn (): Builder => StoredCall::query()->where('status', CallStatus::Waiting)->where('next_try_at', '<=', $now);
        $names = array_filter(
            Columns::texts(Lease::free($due())->distinct()->orderBy('endpoint')->pluck('endpoint')),
            fn (string $name): bool => ($this->underWay[$name] ?? 0) < self::OF_ONE,
        );
        usort($names, fn (string $one, string $other): int => ($this->served[$one] ?? 0) <=> ($this->served[$other] ?? 0));
        foreach ($names as $name) {
            /** @var ?array{?StoredCall, Endpoint} $leased */
            $leased = $this->db->transaction(function () use ($name, $due, $now): ?array {
                $endpoint = Endpoint::query()->lockForUpdate()->firstWhere('name', $name);
                if ($endpoint === null || ! $this->hasRoom($endpoint, $now)) {
                    return null;
                }
                $call = Lease::first($due()->where('endpoint', $name));
                // Whoever held it died over it: nobody knows how far it came. That was a try, or it would be made for ever.
                $isLost = $call?->leased_by !== null;
                if ($call !== null && $isLost && $call->tries + 1 >= $endpoint->most_tries) {
                    $call->update([
                        'tries' => $call->tries + 1, 'unsure' => $call->unsure + 1,
                        'trouble' => 'Whoever made the call ended in the midst of it.',
                    ] + LeaseHolder::FREE);
                    $this->keeper->end($call->id, false);

                    return [null, $endpoint];
                }
                $call?->update([
                    'tried_at' => $now, 'unsure' => $call->unsure + ($isLost ? 1 : 0), 'tries' => $call->tries + ($isLost ? 1 : 0),
                ] + $this->holder->lease(Lease::SECONDS + $endpoint->timeout));

                return $call === null ? null : [$call, $endpoint];
            });
            if ($leased !== null) {
                $this->served[$name] = ++$this->turn;

                return $leased[0] === null ? $this->lease() : $leased;
            }
        }

        return null;
    }

    private function hasRoom(Endpoint $endpoint, string $now): bool
    {
        $rests = $endpoint->rests_until !== null && $endpoint->rests_until->getTimestamp() > time();
        $calls = StoredCall::query()->where('endpoint', $endpoint->name);
        $atOnce = fn (): int => (clone $calls)->where('leased_until', '>=', $now)->count();
        $lately = fn (): int => (clone $calls)->where('tried_at', '>', gmdate('Y-m-d H:i:s', time() - 60))->count();

        return ! $rests && $atOnce() < $endpoint->at_once && $lately() < $endpoint->per_minute;
    }

    private function answered(StoredCall $call, Endpoint $endpoint, Answered $answered): void
    {
        $tries = $call->tries + 1;
        $unsure = $call->unsure + ($answered->isUnsure ? 1 : 0);
        $kept = [
            'tries' => $tries, 'unsure' => $unsure, 'answer_status' => $answered->status, 'answer' => $answered->body,
            'trouble' => mb_substr($answered->trouble, 0, 500),
        ] + LeaseHolder::FREE;
        $this->note($endpoint, $answered);
        if (! $answered->isGood() && $answered->comesAgain && $tries < $endpoint->most_tries) {
            // 5, 20, 45 … seconds, give or take a fifth: many that failed together do not come back together.
            $wait = max($answered->wait ?? 0, (int) round(5 * $tries * $tries * random_int(80, 120) / 100));
            $this->mine($call)->update(['next_try_at' => gmdate('Y-m-d H:i:s', time() + $wait)] + $kept);
            MakeCalls::dispatch()->delay($wait);

            return;
        }
        $this->db->transaction(function () use ($call, $kept, $answered): void {
            if ($this->mine($call)->update($kept) === 1) {
                $this->keeper->end($call->id, $answered->isGood());
            }
        });
    }

    /** Failures in a row let an endpoint rest, longer each time; one that goes well makes them forgotten. */
    private function note(Endpoint $endpoint, Answered $answered): void
    {
        if ($answered->isGood() || ! $answered->comesAgain) {
            Endpoint::query()->whereKey($endpoint->id)->where('failures', '>', 0)->update(['failures' => 0, 'rests_until' => null]);

            return;
        }
        Endpoint::query()->whereKey($endpoint->id)->increment('failures');
        $failures = (int) Endpoint::query()->whereKey($endpoint->id)->value('failures');
        if ($failures >= self::FAILURES) {
            $rest = min(self::LONGEST_REST, 30 * 2 ** min(8, $failures - self::FAILURES));
            Endpoint::query()->whereKey($endpoint->id)->update(['rests_until' => gmdate('Y-m-d H:i:s', time() + $rest)]);
            MakeCalls::dispatch()->delay($rest);
        }
    }

    /** @return Builder<StoredCall> the call, as long as nobody else has taken it over */
    private function mine(StoredCall $call): Builder
    {
        return $this->holder->own(StoredCall::query()->whereKey($call->id));
    }
}
