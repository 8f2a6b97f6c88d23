<?php

declare(strict_types=1);

namespace VividLedger\Rule\Call;

use VividLedger\Schema\Path;

/** One member of what is sent: a field, under a name that may be a path with dots. */
final readonly class Sent
{
    public function __construct(public Path $path, public string $name)
    {
    }
}
