<?php

declare(strict_types=1);

namespace App\Evidence\Setup;

/** What a setup would change here, and what stands against it. */
final readonly class SetupPlan
{
    /**
     * @param  list<SetupChange>  $changes
     * @param  list<array{at: string, code: string, message: string}>  $problems  at "letters/hello.json#/subject"
     * @param  int  $same  so many files say what is so already
     * @param  list<string>  $besides  what is here and not in the setup; it stays
     */
    public function __construct(public array $changes, public array $problems, public int $same, public array $besides)
    {
    }
}
