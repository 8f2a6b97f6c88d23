<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use Closure;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** Whoever asks again for what has not changed gets no more than that (RFC 9110 §8.8.3): 304, by a tag made of the answer. */
final class Tagged
{
    /** @param  Closure(Request): Response  $next */
    public function handle(Request $request, Closure $next): Response
    {
        $response = $next($request);
        $content = $request->isMethodCacheable() && $response->getStatusCode() === 200 ? $response->getContent() : false;
        if (is_string($content) && $content !== '' && $response->getEtag() === null) {
            $response->setEtag(hash('xxh128', $content), true);
            $response->isNotModified($request);
        }

        return $response;
    }
}
