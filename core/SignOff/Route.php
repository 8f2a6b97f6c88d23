<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

/** Who has to sign off, step after step. */
final readonly class Route
{
    /**
     * @param  non-empty-list<RouteStep>  $steps
     * @param  ?list<mixed>  $file  the steps as a rule file writes them, where a page only names them: a sign-off goes on with those
     */
    public function __construct(public array $steps, public ?array $file = null)
    {
    }
}
