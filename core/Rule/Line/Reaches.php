<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

/** A line that reaches for people at once, so that quiet hours hold it back. */
interface Reaches
{
}
