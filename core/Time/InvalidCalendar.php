<?php

declare(strict_types=1);

namespace VividLedger\Time;

/** A working calendar that cannot be kept as it was given. */
final class InvalidCalendar extends \DomainException
{
}
