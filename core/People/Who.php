<?php

declare(strict_types=1);

namespace VividLedger\People;

use VividLedger\Facts\View;

/** Whom a rule means: a way to find a person, with its words. */
final readonly class Who
{
    public function __construct(private PersonExpression $way, private string $said)
    {
    }

    /** As read aloud: "the owner’s manager". */
    public function wording(): string
    {
        return $this->said;
    }

    public function find(View $view): Found
    {
        return $this->way->find($view);
    }

    /** The way as plain steps, for a query; null when it depends on more than the record. */
    public function route(): ?Route
    {
        return $this->way->route();
    }
}
