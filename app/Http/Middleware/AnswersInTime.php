<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Store\LedgerConnection;
use Closure;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** Whatever a request changes is changed while somebody still waits for its answer, or not at all. */
final readonly class AnswersInTime
{
    public function __construct(private LedgerConnection $db)
    {
    }

    /** @param  Closure(Request): Response  $next */
    public function handle(Request $request, Closure $next): Response
    {
        $this->db->answersBy(microtime(true) + (int) config('ledger.answer_within'));
        try {
            return $next($request);
        } finally {
            $this->db->answersBy(null);
        }
    }
}
