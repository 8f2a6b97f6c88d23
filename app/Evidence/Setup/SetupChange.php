<?php

declare(strict_types=1);

namespace App\Evidence\Setup;

/** What one file of a setup would change. */
final readonly class SetupChange
{
    /** @param  list<string>  $said  in sentences */
    public function __construct(public string $path, public string $name, public bool $isNew, public array $said)
    {
    }
}
