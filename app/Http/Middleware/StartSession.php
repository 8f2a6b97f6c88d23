<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use Illuminate\Contracts\Session\Session;
use Illuminate\Http\Request;

/** Starts the session without keeping the address that was opened: some addresses let whoever has them act. */
final class StartSession extends \Illuminate\Session\Middleware\StartSession
{
    /** @param  Session  $session */
    protected function storeCurrentUrl(Request $request, $session): void
    {
    }
}
