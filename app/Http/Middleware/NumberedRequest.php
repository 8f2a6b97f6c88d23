<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Store\Operations\Timings;
use Closure;
use Illuminate\Contracts\Container\Container;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Context;
use Illuminate\Support\Str;
use Symfony\Component\HttpFoundation\Response;

/**
 * Each request has a number, its own or the one a proxy gave it: the answer, every line of the log and every entry bear it, and those of
 * the jobs it leads to.
 */
final readonly class NumberedRequest
{
    public const CONTEXT = 'request';

    private const HEADER = 'X-Request-Id';

    public function __construct(private Container $app)
    {
    }

    /** @param  Closure(Request): Response  $next */
    public function handle(Request $request, Closure $next): Response
    {
        $given = (string) $request->header(self::HEADER);
        $number = preg_match('/^[A-Za-z0-9._-]{8,64}$/D', $given) === 1 ? $given : strtolower((string) Str::ulid());
        Context::add(self::CONTEXT, $number);
        $response = $next($request);
        $response->headers->set(self::HEADER, $number);

        return $response;
    }

    /** The answer is out; what it took can be written down. */
    public function terminate(): void
    {
        $this->app->make(Timings::class)->flush();
    }
}
