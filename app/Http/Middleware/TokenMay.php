<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Models\Access\TokenScope;
use App\Models\People\Person;
use App\Models\Records\StoredRecord;
use App\Store\DomainError;
use App\Store\RefusedFor;
use Closure;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** A token may as much as its person, or less. */
final class TokenMay
{
    /** What lets somebody in is the business of whoever may everything. */
    private const DOORS = ['api/tokens*', 'api/password', 'api/sign-ins*', 'api/second-factor*', 'api/feed'];

    /** @param  Closure(Request): Response  $next */
    public function handle(Request $request, Closure $next): Response
    {
        $scope = self::scope($request);
        $isReading = in_array($request->method(), ['GET', 'HEAD'], true);
        $isWork = in_array('can:edit,'.StoredRecord::class, $request->route()?->gatherMiddleware() ?? [], true);
        $may = $scope === TokenScope::Everything
            || (! $request->is(...self::DOORS) && ($isReading || ($scope === TokenScope::Records && $isWork)));

        // Pages answer with a status alone.
        $may || $request->is('api/*') || abort(403);

        return $may ? $next($request) : throw new DomainError('not_allowed', $scope->refusal(), RefusedFor::NotAllowed);
    }

    private static function scope(Request $request): TokenScope
    {
        $person = $request->user();
        if (! $person instanceof Person || ! $person->isByToken()) {
            return TokenScope::Everything;
        }
        foreach ([TokenScope::Everything, TokenScope::Records] as $scope) {
            if ($person->tokenCan($scope->value)) {
                return $scope;
            }
        }

        return TokenScope::Reading;
    }
}
