<?php

declare(strict_types=1);

namespace App\Models\Events;

/** Calls of other systems wait to be made, once what caused them has been written. */
final readonly class CallsWait
{
}
