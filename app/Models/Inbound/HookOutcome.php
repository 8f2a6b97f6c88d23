<?php

declare(strict_types=1);

namespace App\Models\Inbound;

/** What came of something that arrived at a hook. */
enum HookOutcome: string
{
    case Created = 'created';
    case Changed = 'changed';
    case Unchanged = 'unchanged';   // all of it was so already
    case Refused = 'refused';       // nothing was done; it can be mended and taken again

    public function isDone(): bool
    {
        return $this !== self::Refused;
    }
}
