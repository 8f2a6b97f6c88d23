<?php

declare(strict_types=1);

namespace VividLedger\Rule\Timing;

/** A timing for which each yes to a sign-off counts, and not only what the sign-off comes to. */
interface HearsEachYes extends Timing
{
}
