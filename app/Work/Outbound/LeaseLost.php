<?php

declare(strict_types=1);

namespace App\Work\Outbound;

/** Somebody else has taken the letter in hand, so it is theirs to send. */
final class LeaseLost extends \RuntimeException
{
}
