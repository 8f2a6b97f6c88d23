<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Models\People\Person;
use App\Store\Access\AccessScope;
use App\Store\DomainError;
use App\Store\RefusedFor;
use Closure;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;
use VividLedger\Rights\Duty;
use VividLedger\Words\Words;

/** Lets a request through whose person has a duty: "write_rules"; or from whom nothing is hidden: "all". */
final readonly class Needs
{
    public const ALL = 'all';

    public function __construct(private AccessScope $inSight)
    {
    }

    /** @param  Closure(Request): Response  $next */
    public function handle(Request $request, Closure $next, string $what): Response
    {
        $person = $request->user();
        $duty = Duty::tryFrom($what);
        $may = $person instanceof Person && ($duty === null ? $this->inSight->isEverything() : $person->may($duty));
        if (! $may) {
            $label = $person instanceof Person ? $person->rights()->label : Words::say('Nobody');
            throw new DomainError('not_allowed', $duty === null
                ? Words::say(
                    'This reads every record and every field, and some of them are not for {label}.',
                    label: $label,
                ) : Words::say(
                    '{label}: your role does not include this. It takes “{duty}”.',
                    label: $label,
                    duty: $duty->label(),
                ), RefusedFor::NotAllowed);
        }

        return $next($request);
    }
}
