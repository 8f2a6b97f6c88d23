<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Store\DomainError;
use App\Store\RefusedFor;
use Illuminate\Contracts\Cache\Lock;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Cache;
use Symfony\Component\HttpFoundation\Response;
use VividLedger\Words\Words;

/**
 * Lets each person, and all of them together, have only a few long reckonings under way at a time, so that nobody uses up the web server.
 * Whoever comes for one more waits a moment for a place and is told when there is none.
 */
final class ConcurrencyLimit
{
    private const WAIT_SECONDS = 1.5;

    /** A process that died holding a place gives it back after this long. */
    private const HELD_SECONDS = 600;

    /** @var list<Lock> */
    private array $held = [];

    /**
     * @param  \Closure(Request): Response  $next
     * @param  string  $most  under way of one person
     * @param  ?string  $ofAll  under way of all persons together; null for any number
     *
     * @throws DomainError when every place is still taken after a short wait
     */
    public function handle(Request $request, \Closure $next, string $what, string $most, ?string $ofAll = null): Response
    {
        if (! $this->holds($what.':'.$request->user()?->getAuthIdentifier(), (int) $most)) {
            throw new DomainError(
                'too_many_at_once',
                Words::say('You have {most} of these under way already. Wait until one is done, or stop one.', most: $most),
                RefusedFor::TooMany,
            );
        }
        if ($ofAll !== null && ! $this->holds("{$what}:all", (int) $ofAll)) {
            throw new DomainError(
                'busy',
                Words::say('Others have {most} of these under way just now. Try again in a moment.', most: $ofAll),
                RefusedFor::Busy,
            );
        }

        return $next($request);
    }

    private function holds(string $key, int $most): bool
    {
        $lock = $this->place($key, $most);
        if ($lock === null) {
            return false;
        }
        $this->held[] = $lock;
        // Whoever hangs up ends the program at once, before anything else could give the place back.
        register_shutdown_function(static fn (): bool => $lock->release());

        return true;
    }

    public function terminate(): void
    {
        foreach ($this->held as $lock) {
            $lock->release();
        }
        $this->held = [];
    }

    private function place(string $key, int $most): ?Lock
    {
        $end = microtime(true) + self::WAIT_SECONDS;
        do {
            for ($place = 1; $place <= $most; $place++) {
                $lock = Cache::lock("at-once:{$key}:{$place}", self::HELD_SECONDS);
                if ($lock->get()) {
                    return $lock;
                }
            }
            usleep(50_000);
        } while (microtime(true) < $end);

        return null;
    }
}
