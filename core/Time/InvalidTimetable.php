<?php

declare(strict_types=1);

namespace VividLedger\Time;

/** A timetable that cannot be kept as it was given. */
final class InvalidTimetable extends \DomainException
{
}
