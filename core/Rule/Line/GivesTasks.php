<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

/** A line that gives tasks to the people it finds, and that later lines can wait for. */
interface GivesTasks extends FindsPeople, Waitable
{
}
