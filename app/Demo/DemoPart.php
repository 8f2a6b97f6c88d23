<?php

declare(strict_types=1);

namespace App\Demo;

/** A part of the demo's history in which people answer what rules ask of them. */
interface DemoPart
{
    /** When something has to be tended next; null when nothing has. */
    public function next(): ?\DateTimeImmutable;

    public function tend(\DateTimeImmutable $now): void;

    /** Whoever has been asked since this was called last answers some time on, or does not. */
    public function answer(): void;
}
