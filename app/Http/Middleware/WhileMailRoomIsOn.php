<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Store\DomainError;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;
use VividLedger\Words\Words;

/** The mail room is a stand-in: where real servers take its place it is switched off, and none of its doors is there. */
final class WhileMailRoomIsOn
{
    /**
     * @param  \Closure(Request): Response  $next
     *
     * @throws DomainError
     */
    public function handle(Request $request, \Closure $next): Response
    {
        if (config('ledger.mail.room') === true) {
            return $next($request);
        }
        $request->is('api/*') || abort(404);
        throw DomainError::missing(Words::say('The mail room is switched off.'));
    }
}
