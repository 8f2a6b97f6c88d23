<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** What keeps a browser safe, whatever serves the application. */
final class SecurityHeaders
{
    private const HEADERS = [
        'X-Content-Type-Options' => 'nosniff',
        'X-Frame-Options' => 'DENY',
        'Referrer-Policy' => 'same-origin',
        'Permissions-Policy' => 'camera=(), display-capture=(), geolocation=(), microphone=(), payment=(), usb=()',
        'Cross-Origin-Opener-Policy' => 'same-origin',
    ];

    /** Everything comes from here; a letter may bring styles of its own, and pictures inside itself. */
    private const CONTENT = [
        "default-src 'self'", "style-src 'self' 'unsafe-inline'", "img-src 'self' data:", "object-src 'none'", "base-uri 'self'",
        "form-action 'self'", "frame-ancestors 'none'",
    ];

    /** @param  \Closure(Request): Response  $next */
    public function handle(Request $request, \Closure $next): Response
    {
        $response = $next($request);
        foreach (self::HEADERS as $name => $value) {
            $response->headers->set($name, $value);
        }
        // What somebody has sent in has a stricter one of its own.
        if (! $response->headers->has('Content-Security-Policy')) {
            $response->headers->set('Content-Security-Policy', implode('; ', self::CONTENT));
        }
        if ($request->isSecure()) {
            $response->headers->set('Strict-Transport-Security', 'max-age=31536000');
        }

        return $response;
    }
}
