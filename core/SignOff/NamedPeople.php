<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

use VividLedger\Facts\View;
use VividLedger\People\Who;

/** Several people, each found in some way: "the owner’s manager and Ulla Verne". */
final readonly class NamedPeople implements Approvers
{
    /** @param  non-empty-list<Who>  $who */
    public function __construct(private array $who)
    {
    }

    public function people(View $view): array
    {
        return array_values(array_filter(array_map(static fn (Who $who): mixed => $who->find($view)->person, $this->who)));
    }
}
