<?php

declare(strict_types=1);

namespace VividLedger\Engine;

/** Something that happens in the course of a decision. Its parent is the place of the step that led to it; null for the change itself. */
interface Step
{
    public function parent(): ?int;
}
