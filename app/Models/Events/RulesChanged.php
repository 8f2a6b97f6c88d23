<?php

declare(strict_types=1);

namespace App\Models\Events;

/** A rule, a proof, or something that rules only name was changed. */
final class RulesChanged
{
}
