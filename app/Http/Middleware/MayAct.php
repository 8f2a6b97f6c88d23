<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Models\LedgerModel;
use App\Store\Access\RecordAuthorizer;
use Closure;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;
use VividLedger\Rights\Act;

/**
 * Lets a request through to a record, where its person may do that with it: to the record of the address, to any of its type where the
 * address names none, or to the one that a row is about.
 */
final readonly class MayAct
{
    public function __construct(private RecordAuthorizer $gate)
    {
    }

    /**
     * @param  Closure(Request): Response  $next
     * @param  ?class-string<LedgerModel>  $rows  rows with a record_type and a record_id, one of which the address names
     */
    public function handle(Request $request, Closure $next, string $act, ?string $rows = null): Response
    {
        $id = (int) $request->route('id');
        if ($rows === null) {
            $type = $this->gate->type((string) $request->route('type'));
            $request->route('id') === null ? $this->gate->mustEver(Act::from($act), $type)
                : $this->gate->mustMay(Act::from($act), $type, $id);

            return $next($request);
        }
        $row = $rows::query()->find($id)?->getAttributes();
        // What is not there, the controller says in its own words.
        if (isset($row['record_type'], $row['record_id'])) {
            $this->gate->mustMay(Act::from($act), $this->gate->type((string) $row['record_type']), (int) $row['record_id']);
        }

        return $next($request);
    }
}
