<?php

declare(strict_types=1);

namespace App\Models\Events;

/** Messages were written that have to leave the house. */
final class MessagesWait
{
}
